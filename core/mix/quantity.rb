# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # An amount with its dimension: lengths, areas, volumes, masses, times and what they make of one another. What
      # does not belong together is never added.
      #
      #   Quantity.of(2, "qt") + Quantity.of(100, "mL")      # a volume
      #   Quantity.of(3, "lb") / Quantity.of(1, "gal")       # a mass on a volume
      #   (rate * area).to("L")                              # 40.0
      class Quantity
        include Comparable

        # A unit's size in g, m and s, and its powers of them. US customary units are exact by definition.
        CM3 = 1e-6
        FLUID_OUNCE = 29.5735295625 * CM3
        FOOT, MILE, ACRE = 0.3048, 1609.344, 4046.8564224
        MASS, LENGTH, AREA, VOLUME, TIME, NONE =
          [1, 0, 0], [0, 1, 0], [0, 2, 0], [0, 3, 0], [0, 0, 1], [0, 0, 0]
        UNITS = {
          "mL" => [CM3, VOLUME], "L" => [1000 * CM3, VOLUME], "m³" => [1.0, VOLUME], "fl oz" => [FLUID_OUNCE, VOLUME],
          "pt" => [16 * FLUID_OUNCE, VOLUME], "qt" => [32 * FLUID_OUNCE, VOLUME], "gal" => [128 * FLUID_OUNCE, VOLUME],
          "mg" => [1e-3, MASS], "g" => [1.0, MASS], "kg" => [1000.0, MASS], "oz" => [28.349523125, MASS],
          "lb" => [453.59237, MASS],
          "mm" => [1e-3, LENGTH], "cm" => [0.01, LENGTH], "m" => [1.0, LENGTH], "km" => [1000.0, LENGTH],
          "in" => [FOOT / 12, LENGTH], "ft" => [FOOT, LENGTH], "mi" => [MILE, LENGTH],
          "cm²" => [1e-4, AREA], "m²" => [1.0, AREA], "ha" => [1e4, AREA], "ft²" => [FOOT**2, AREA],
          "ac" => [ACRE, AREA],
          "s" => [1.0, TIME], "min" => [60.0, TIME], "h" => [3600.0, TIME], "1" => [1.0, NONE], "%" => [0.01, NONE]
        }.freeze

        attr_reader :size, :powers

        # A number of a unit, or of units on units: "g/L", "fl oz/gal". Raises BadInput (field :unit) for one unknown.
        def self.of(number, unit)
          over, *under = unit.split("/").map { |name| UNITS[name] || unknown(name) }
          size = under.reduce(over.first) { |all, (each, _)| all / each }
          powers = under.reduce(over.last) { |all, (_, each)| all.zip(each).map { |a, b| a - b } }
          new(number * size, powers)
        end

        def self.unknown(name)
          raise BadInput.new("“#{name}” is not a unit here: #{UNITS.keys.first(13).join(", ")}.", field: :unit)
        end
        private_class_method :unknown

        # size in g, m and s; their powers.
        def initialize(size, powers)
          @size, @powers = size.to_f, powers
          freeze
        end

        # In a unit, Float. Raises BadInput (field :unit) where the unit measures something else.
        def to(unit)
          other = Quantity.of(1, unit)
          mismatch("said in #{unit}") unless powers == other.powers
          size / other.size
        end

        # Raises BadInput (field :unit) for what is not of the same kind.
        def +(other)
          mismatch("added to") unless powers == other.powers
          Quantity.new(size + other.size, powers)
        end

        # The same.
        def -(other)
          mismatch("taken from") unless powers == other.powers
          Quantity.new(size - other.size, powers)
        end

        # By a number or a quantity.
        def *(other)
          other = plain(other)
          Quantity.new(size * other.size, powers.zip(other.powers).map { |one, two| one + two })
        end

        # The same, divided. What is divided by a quantity of its own kind is a plain number: #ratio says it.
        def /(other)
          other = plain(other)
          Quantity.new(size / other.size, powers.zip(other.powers).map { |one, two| one - two })
        end

        # Compares what is of one kind; nil else.
        def <=>(other) = (size <=> other.size if other.is_a?(Quantity) && other.powers == powers)

        def mass? = powers == MASS
        def zero? = size.zero?
        def positive? = size.positive?

        # As a plain number: of what has no dimension.
        def ratio = to("1")

        private

        # A number as a quantity without a dimension.
        def plain(other) = other.is_a?(Quantity) ? other : Quantity.new(other, powers.map { 0 })

        def mismatch(words)
          raise BadInput.new("One kind of quantity cannot be #{words} another: a volume is no mass without its " \
                             "density.", field: :unit)
        end
      end
    end
  end
end
