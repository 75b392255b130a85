# frozen_string_literal: true

module Thistle
  module Core
    # A frozen record with named fields, made by keyword: Value.define(:date, :rain_mm).
    # Unknown fields raise ArgumentError, missing ones are nil, setters raise FrozenError.
    module Value
      def self.define(*fields, &body)
        Struct.new(*fields, keyword_init: true) do
          def initialize(**fields)
            super
            freeze
          end

          def with(**changes)
            dup.tap { |copy| changes.each { |field, value| copy[field] = value } }.freeze
          end

          class_eval(&body) if body
        end
      end
    end
  end
end
