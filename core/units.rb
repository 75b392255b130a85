# frozen_string_literal: true

module Thistle
  module Core
    # SI in, words out: quantities in the property's choice of units, :metric or :us.
    # Also reads what people type back into SI.
    class Units
      SYSTEMS = %w[metric us].freeze
      M2_PER_ACRE = 4046.8564224 # international acre, exact
      M2_PER_FT2 = 0.09290304
      M_PER_FT = 0.3048
      ML_PER_FL_OZ = 29.5735295625 # US fluid ounce, exact
      ML_PER_GALLON = 128 * ML_PER_FL_OZ

      # How a typed field is read: unit shown beside it and the factor into SI.
      FIELDS = {
        area: { "metric" => ["m²", 1.0], "us" => ["ft²", M2_PER_FT2] },
        length: { "metric" => ["m", 1.0], "us" => ["ft", M_PER_FT] },
        volume: { "metric" => ["mL", 1.0], "us" => ["fl oz", ML_PER_FL_OZ] },
        wind: { "metric" => ["km/h", 1.0], "us" => ["mph", 1.609344] },
        mass: { "metric" => ["g", 1.0], "us" => ["oz", 28.349523125] },
        rain: { "metric" => ["mm", 1.0], "us" => ["in", 25.4] },
        # Active in a product, g on a litre; acid on ground in a year, g on a hectare.
        loading: { "metric" => ["g/L", 1.0], "us" => ["lb/gal", 453.59237 / (ML_PER_GALLON / 1000)] },
        ground_dose: { "metric" => ["kg/ha", 1000.0], "us" => ["lb/ac", 453.59237 / (M2_PER_ACRE / 10_000)] },
        # Product on ground, mL on a hectare.
        spread: { "metric" => ["L/ha", 1000.0], "us" => ["fl oz/ac", ML_PER_FL_OZ / (M2_PER_ACRE / 10_000)] },
        # Of what is weighed, g on a hectare.
        spread_dry: { "metric" => ["g/ha", 1.0], "us" => ["oz/ac", 28.349523125 / (M2_PER_ACRE / 10_000)] },
        # Spray on ground, litres on 100 m².
        rate: { "metric" => ["L per 100 m²", 1.0], "us" => ["gal/ac", ML_PER_GALLON / 1000 / (M2_PER_ACRE / 100)] }
      }.freeze

      # How a quantity is said: [size of the unit in SI, unit, smallest amount that is said in it].
      SCALES = {
        area: { "metric" => [[10_000.0, "ha", 10_000], [1.0, "m²", 0]],
                "us" => [[M2_PER_ACRE, "ac", M2_PER_ACRE / 4], [M2_PER_FT2, "ft²", 0]] },
        length: { "metric" => [[1000.0, "km", 1000], [1.0, "m", 0]],
                  "us" => [[1609.344, "mi", 1609.344], [M_PER_FT, "ft", 0]] },
        volume: { "metric" => [[1000.0, "L", 1000], [1.0, "mL", 0]],
                  "us" => [[ML_PER_GALLON, "gal", ML_PER_GALLON], [ML_PER_FL_OZ, "fl oz", 0]] },
        mass: { "metric" => [[1000.0, "kg", 1000], [1.0, "g", 0]],
                "us" => [[453.59237, "lb", 453.59237], [28.349523125, "oz", 0]] }
      }.freeze

      attr_reader :system

      def initialize(system = "metric")
        raise BadInput.new("Units are metric or us, not “#{system}”.", field: :units) unless SYSTEMS.include?(system)

        @system = system
        freeze
      end

      # What a comma before three digits means where these units are used (Decimal#read).
      def comma = us? ? :thousands : :ask
      def us? = system == "us"
      def unit(kind) = FIELDS.fetch(kind).fetch(system).first
      def to_si(kind, number) = number && (number * factor(kind))
      def from_si(kind, number) = number && (number / factor(kind))

      # Each says an SI quantity (m², m, mL, g) in the unit that suits its size; "–" for nil and for what is no number.
      SCALES.each_key { |kind| define_method(kind) { |number| scaled(kind, number) } }

      def rate(litres_per_100m2) = "#{figure(from_si(:rate, litres_per_100m2))} #{unit(:rate)}"

      def spread(ml_per_ha) = "#{figure(from_si(:spread, ml_per_ha))} #{unit(:spread)}"

      def spread_dry(g_per_ha) = "#{figure(from_si(:spread_dry, g_per_ha))} #{unit(:spread_dry)}"

      # A plant's height or spacing from cm: whole inches or feet in US units.
      def depth(cm)
        return cm >= 100 ? "#{figure(cm / 100.0)} m" : "#{figure(cm)} cm" unless us?

        cm >= 91 ? "#{figure((cm / 30.48 * 2).round / 2.0)} ft" : "#{(cm / 2.54).round} in"
      end

      # What is delivered loose, of m³.
      def bulk(cubic_m) = us? ? "#{figure(cubic_m / 0.764554858)} yd³" : "#{figure(cubic_m)} m³"

      # How thickly something stands or is sown, of what stands on a square metre: "4/m²", "0.4/ft²", "4/100 ft²".
      def dense(per_m2)
        return "#{figure(per_m2)}/m²" unless us?

        per_ft2 = per_m2 * M2_PER_FT2
        per_ft2 >= 1 ? "#{figure(per_ft2)}/ft²" : "#{figure(per_ft2 * 100)}/100 ft²"
      end

      def rain(mm) = us? ? "#{figure(mm / 25.4)} in" : "#{figure(mm)} mm"
      def wind(km_h) = us? ? "#{(km_h / 1.609344).round} mph" : "#{km_h.round} km/h"
      def temperature(c) = us? ? "#{((c * 9 / 5) + 32).round} °F" : "#{c.round} °C"

      # A limit of wind or warmth, never rounded to the far side of it: the highest down, the lowest up. "9.6 km/h"
      def most_wind(km_h) = "#{inside(from_si(:wind, km_h), :floor)} #{unit(:wind)}"
      def least_wind(km_h) = "#{inside(from_si(:wind, km_h), :ceil)} #{unit(:wind)}"
      def most_temperature(celsius) = "#{inside(from_celsius(celsius), :floor)} #{degrees}"
      def least_temperature(celsius) = "#{inside(from_celsius(celsius), :ceil)} #{degrees}"

      # A tenth on the side of a limit; whole where it is whole.
      def inside(value, side) = (value - value.round).abs < 0.02 ? value.round : value.public_send(side, 1)
      def degrees = us? ? "°F" : "°C"
      private :inside, :degrees

      QUANTITY = /\{(volume|area|mass|length|depth|dense|rate|rain|(?:most_|least_)?(?:wind|temperature)|warmth|
                   spread_dry|spread):(-?[\d.]+)\}/x
      DAY = /\{day:(\d{4}-\d\d-\d\d)\}/ # as Dates.full says it

      # Fills the quantities into a text: {volume:280.5} (mL), {area:50} (m²), {mass:3} (g), {length:30} (m), {depth:90}
      # (cm), {dense:4} (on a m²), {rate:5} (L on 100 m²), {rain:25} (mm), {wind:12} (km/h), {temperature:5} (°C),
      # {warmth:210} (degree days above 5 °C), {spread:1500} (mL on a hectare), {spread_dry:60} (g); {most_wind:9.6} and
      # the like for limits; {day:2026-06-04}. Gives the text.
      def fill(text)
        text.gsub(QUANTITY) { public_send(Regexp.last_match(1), Regexp.last_match(2).to_f) }
            .gsub(DAY) { Dates.full(Date.iso8601(Regexp.last_match(1))) }
      end

      # Degree days above 5 °C.
      def warmth(degree_days)
        us? ? "#{(degree_days * 1.8).round} degree days above 41 °F" : "#{figure(degree_days)} degree days above 5 °C"
      end

      # A typed temperature in °C, and back.
      def to_celsius(number) = number && us? ? (number - 32) / 1.8 : number
      def from_celsius(celsius) = celsius && us? ? (celsius * 1.8) + 32 : celsius

      # A difference of temperatures, °C.
      def difference(c) = us? ? "#{(c * 1.8).round} °F" : "#{figure(c)} °C"

      # Three significant figures, never more than the measure can bear; thousands apart.
      def figure(number)
        return "0" if number.zero?

        digits = [2 - Math.log10(number.abs).floor, 0].max
        text = format("%.#{[digits, 4].min}f", number)
        text = text.sub(/\.0+\z|(?<!0)0+\z/, "") if text.include?(".")
        whole, part = text.split(".")
        [Decimal.apart(whole), part].compact.join(".")
      end

      private

      def factor(kind) = FIELDS.fetch(kind).fetch(system).last

      def scaled(kind, number)
        return "–" unless number&.finite?

        size, unit = SCALES.fetch(kind).fetch(system).find { |_, _, from| number.abs >= from }
        "#{figure(number / size)} #{unit}"
      end
    end
  end
end
