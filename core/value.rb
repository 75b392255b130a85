# frozen_string_literal: true

module Thistle
  module Core
    # A frozen record with named fields, made by keyword: Value.define(:date, :rain_mm).
    # Unknown fields raise ArgumentError, missing ones are nil, setters raise FrozenError.
    module Value
      # A class of frozen values with these fields, each nil unless given; the block adds methods.
      def self.define(*fields, &body)
        Struct.new(*fields, keyword_init: true) do
          def initialize(**fields)
            super
            freeze
          end

          # The same with other fields. Raises NameError for a field that it does not have.
          def with(**changes)
            dup.tap { |copy| changes.each { |field, value| copy[field] = value } }.freeze
          end

          class_eval(&body) if body
        end
      end
    end
  end
end
