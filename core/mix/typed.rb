# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # An amount as people type it, with its unit or without: "2 qt", "1.5 L", "500".
      module Typed
        # Ways of writing a unit that are understood as another.
        ALSO = { "ml" => "mL", "l" => "L", "floz" => "fl oz", "fl. oz" => "fl oz", "ounces" => "fl oz", "pint" => "pt",
                 "pints" => "pt", "quart" => "qt", "quarts" => "qt", "gallon" => "gal", "gallons" => "gal",
                 "litre" => "L", "litres" => "L", "liter" => "L", "liters" => "L" }.freeze
        VOLUMES = ["mL", "L", "fl oz", "pt", "qt", "gal"].freeze

        module_function

        # mL; nil for what is no number. unit: what a bare number is counted in. Raises BadInput (field) for a unit that
        # is none of a volume: ounces and pounds are of mass. comma: as Decimal#read has it.
        def volume(text, unit:, field: :base, comma: :ask)
          digits, *letters = text.to_s.strip.partition(/[a-z]/i)
          number = Decimal.read(digits, comma:) or return
          named = unit_named(letters.join.strip) || unit
          return Quantity.of(number, named).to("mL") if VOLUMES.include?(named)

          raise BadInput.new("is in “#{named[0, 20]}”, which is no volume: #{VOLUMES.join(", ")}", field:)
        end

        def unit_named(text)
          return if text.empty?

          plain = text.squeeze(" ")
          VOLUMES.find { |known| known.casecmp?(plain) } || ALSO.fetch(plain.downcase, plain)
        end
        private_class_method :unit_named
      end
    end
  end
end
