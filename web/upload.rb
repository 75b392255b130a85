# frozen_string_literal: true

module Thistle
  module Web
    # Files among what was sent; a field of that name that holds anything else is no file.
    module Upload
      module_function

      # The upload, { filename:, tempfile: }, or nil.
      def read(value) = (value if value.is_a?(Hash) && value[:tempfile].respond_to?(:read))

      # The uploads of a field that takes several.
      def all(values) = Array(values).filter_map { |value| read(value) }
    end
  end
end
