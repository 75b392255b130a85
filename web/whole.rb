# frozen_string_literal: true

module Thistle
  module Web
    # A whole number in an address or a form: an id, a page. Whatever else stands there is 0, which nothing has.
    module Whole
      module_function

      def read(value) = value.is_a?(String) && value.valid_encoding? && value.match?(/\A\d{1,15}\z/) ? value.to_i : 0
    end
  end
end
