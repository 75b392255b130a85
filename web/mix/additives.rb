# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      # What goes into a vessel besides products, as it was typed: adjuvant, dye, and what answers hard water; each in
      # one of the units that labels say it in.
      class Additives
        MOST_PERCENT, MOST_GRAMS = 20.0, 50.0 # of the volume; on a litre
        # Units by field, keys of Core::Mix::Way; the first is the usual one.
        UNITS = { "adjuvant" => %w[product ml_per_l ml100l ounces floz100 pt100 qt100 gal100],
                  "dye" => %w[g_per_l ml_per_l ounces floz100 qt100 product oz100],
                  "ams" => %w[lb100 g_per_l] }.freeze
        FIELDS = [*UNITS.keys, *UNITS.keys.map { |name| "#{name}_said" }, "hardness"].freeze
        DEFAULTS = FIELDS.to_h { |name| [name, UNITS[name.delete_suffix("_said")]&.first] }
                         .merge("adjuvant" => "", "dye" => "", "ams" => "", "hardness" => "").freeze
        ORDERS = { "adjuvant" => Core::Mix::Blend::ADJUVANT, "dye" => Core::Mix::Blend::DYE,
                   "ams" => Core::Mix::Blend::CONDITIONER }.freeze
        NAMES = { "adjuvant" => "adjuvant", "dye" => "dye", "ams" => "ammonium sulfate" }.freeze

        # {key => words} of a field's units.
        def self.units(field)
          UNITS.fetch(field).to_h { |key| [key, key == "product" ? "% of volume" : way(key).label] }
        end

        # Grams on a litre, where the ways of products say grams on a hundred.
        def self.way(key) = key == "g_per_l" ? GRAMS : Core::Mix::Way::ALL.fetch(key)
        GRAMS = Core::Mix::Way.new(key: "g_per_l", of: :product, unit: "g/L", over: 1, label: "g/L", group: :mix)

        attr_reader :errors

        # typed: {field => text}; comma: as Core::Decimal#read has it.
        def initialize(typed, comma: :ask)
          @typed, @comma, @errors = typed, comma, {}
        end

        # [Core::Mix::Blend::Extra], without what was left empty or cannot be read.
        def extras = @extras ||= [*UNITS.keys.filter_map { |field| extra(field) }, conditioner].compact

        private

        def extra(field)
          said = @typed["#{field}_said"]
          way = Additives.way(UNITS[field].include?(said) ? said : UNITS[field].first)
          amount(field) do |number|
            found = way.percent? ? { percent: number } : measured(way, number)
            next too_much(field, found) if found.values.first > (found.key?(:percent) ? MOST_PERCENT : MOST_GRAMS)

            made(field, **found)
          end
        end

        def measured(way, number)
          size = way.size * number
          way.mass? ? { grams_per_litre: size.to("g/L") } : { percent: size.ratio * 100 }
        end

        def made(field, **amount)
          Core::Mix::Blend::Extra.new(name: NAMES.fetch(field), order: ORDERS.fetch(field), in_water: field == "ams",
                                      **amount)
        end

        # Ammonium sulfate by the water, where nobody typed what the label says.
        def conditioner
          amount("hardness") do |ppm|
            grams = Core::Mix::Carrier.for_hardness(ppm)
            made("ams", grams_per_litre: grams) if @typed["ams"].to_s.empty?
          end
        end

        def too_much(field, found)
          most = found.key?(:percent) ? "#{MOST_PERCENT.round} % of the volume" : "#{MOST_GRAMS.round} g/L"
          @errors[field.to_sym] = "is above 0 and at most #{most}"
          nil
        end

        def amount(field)
          text = @typed[field].to_s
          return if text.empty?

          number = Core::Decimal.read(text, comma: @comma)
          return yield(number) if number&.positive?
          return if number&.zero?

          @errors[field.to_sym] = number ? "is above 0" : Core::Decimal.complaint(text, "is not a number")
          nil
        rescue Core::BadInput => e
          @errors[field.to_sym] = e.message
          nil
        end
      end
    end
  end
end
