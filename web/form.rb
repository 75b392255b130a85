# frozen_string_literal: true

require "dry/validation"

module Thistle
  module Web
    # What a person typed, kept as typed, with a message beside each field that cannot be right.
    # A form names its contract; `values` are read and checked, in the units that were typed.
    class Form
      # Rules that many forms share. Options: today, and seen_on where a record belongs to a patch.
      class Contract < Dry::Validation::Contract
        option :today
        option :seen_on, default: -> {}

        register_macro(:clock) do
          if value && !Core::Season::Clock.known?(value)
            key.failure("is not a time zone name, such as America/Chicago")
          end
        end

        register_macro(:both_or_neither) do
          given, missing = keys.partition { |name| values[name] }
          key(missing.first).failure("is needed too: enter both fields or neither") if given.one?
        end

        register_macro(:day_of_record) do
          next unless value

          key.failure("is in the future: today is #{Words.full_day(today)}") if value > today
          key.failure("is before the patch was first seen, #{Words.full_day(seen_on)}") if seen_on && value < seen_on
        end
      end

      attr_reader :raw, :errors, :values, :units, :today
      # {field => what is likely, in words}: shown in grey, never sent.
      attr_accessor :hints

      # Values of a record as a person would type them: {"hours" => "3"}.
      def self.typed(values) = values.compact.to_h { |name, value| [name.to_s, value.to_s.delete_suffix(".0")] }

      # A form that nobody has sent yet, filled in with what is known: it has no complaints.
      def self.untouched(known = {}, units:, today:) = new(known, units:, today:).tap { |form| form.errors.clear }

      def initialize(params, units:, today:, **context)
        @units, @today, @hints = units, today, {}
        @raw = params.to_h.transform_keys(&:to_s).select { |_, v| v.is_a?(String) }
                     .transform_values { |v| v.scrub.strip }
        result = read(self.class::Fields.new(today:, **context))
        @values = result.to_h
        @errors = result.errors.to_h.to_h do |name, words|
          [name, units.comma == :ask ? Core::Decimal.complaint(@raw[name.to_s], words.first) : words.first]
        end
        @values.each { |name, value| @errors[name] ||= "is too large" if value.is_a?(Float) && value.infinite? }
      end

      def ok? = errors.empty?
      def [](field) = raw[field.to_s]
      def error(field) = errors[field.to_sym]
      def hint(field) = hints[field.to_sym]

      # The same form with one more complaint.
      def failed(field, message)
        errors[field] = message
        self
      end

      # What the contract makes of what was typed; of numbers that it cannot take, again as people write them.
      def read(fields)
        given = @raw.reject { |_, v| v.empty? }
        result = fields.call(given)
        numbers = read_anew(given.slice(*result.errors.to_h.keys.map(&:to_s)))
        numbers.any? ? fields.call(given.merge(numbers)) : result
      end

      # Of what the contract cannot take, numbers as people write them: "2,5" and "1 200" as it reads them.
      def read_anew(texts)
        texts.filter_map do |name, text|
          number = Core::Decimal.read(text, comma: units.comma) if text.match?(/[,\s\u00A0\u202F']/)
          [name, number.to_s.delete_suffix(".0")] if number
        end.to_h
      end

      private :read, :read_anew

      # Typed quantity of a kind (Core::Units) in SI; nil where it is no number.
      def si(field, kind) = units.to_si(kind, values[field].then { |value| value if value.is_a?(Numeric) })
    end
  end
end
