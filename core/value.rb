# frozen_string_literal: true

module Thistle
  module Core
    # A frozen record with named fields, made by keyword: Value.define(:date, :rain_mm).
    # Unknown fields raise ArgumentError, missing ones are nil, setters raise FrozenError.
    module Value
      # The same of many fields, told in parts: Value.of(ground: %i[slope soil], crew: %i[people]). The class keeps them
      # as PARTS.
      def self.of(**parts, &)
        define(*parts.values.flatten, &).tap { |made| made.const_set(:PARTS, parts.freeze) }
      end

      # A class of frozen values with these fields, each nil unless given, or as usual: define(:plants, past: []); the
      # block adds methods.
      def self.define(*fields, **usual, &body)
        Struct.new(*fields, *usual.keys, keyword_init: true) do
          if usual.any?
            define_method(:initialize) do |**told|
              super(**usual, **told)
              freeze
            end
          else
            # Not by define_method: it is called a hundred thousand times a page.
            def initialize(**fields)
              super
              freeze
            end
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
