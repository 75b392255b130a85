# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      # What goes into a vessel besides products, as it was typed: adjuvant, dye, and what answers hard water.
      class Besides
        MOST_PERCENT, MOST_GRAMS = 20.0, 50.0 # adjuvant; dye on a litre
        FIELDS = %w[adjuvant dye hardness].freeze

        attr_reader :errors

        # typed: {field => text}.
        def initialize(typed)
          @typed, @errors = typed, {}
        end

        # [Core::Mix::Blend::Extra], without what was left empty or cannot be read.
        def extras
          @extras ||= [adjuvant, dye, conditioner].compact.map { |known| Core::Mix::Blend::Extra.new(**known) }
        end

        private

        def adjuvant
          order = Core::Mix::Blend::ADJUVANT
          amount("adjuvant", MOST_PERCENT) { |percent| { name: "adjuvant", percent:, order: } }
        end

        def dye
          order = Core::Mix::Blend::DYE
          amount("dye", MOST_GRAMS) { |grams| { name: "dye", grams_per_litre: grams, order: } }
        end

        def conditioner
          amount("hardness", Core::Mix::Carrier::HARDEST) do |ppm|
            { name: "ammonium sulphate", grams_per_litre: Core::Mix::Carrier.for_hardness(ppm),
              order: Core::Mix::Blend::CONDITIONER }
          end
        end

        def amount(field, most)
          text = @typed.fetch(field).to_s
          return if text.empty?

          number = Core::Decimal.read(text)
          return yield(number) if number&.positive? && number <= most
          return if number&.zero?

          @errors[field.to_sym] =
            number ? "is above 0 and at most #{most.round}" : Core::Decimal.complaint(text, "is not a number")
          nil
        end
      end
    end
  end
end
