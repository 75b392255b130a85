# frozen_string_literal: true

module Thistle
  module Web
    class Form
      # A form whose fields are read elsewhere: it keeps what was typed and the complaints.
      class Blank
        attr_reader :raw, :errors

        def initialize(params = {})
          @raw = params.to_h.transform_keys(&:to_s).select { |_, v| v.is_a?(String) }
          @errors = {}
        end

        def [](field) = raw[field.to_s]
        def error(field) = errors[field.to_sym]

        def failed(field, message)
          errors[field.to_sym] = message
          self
        end
      end
    end
  end
end
