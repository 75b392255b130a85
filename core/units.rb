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
        mass: { "metric" => ["g", 1.0], "us" => ["oz", 28.349523125] }
      }.freeze

      attr_reader :system

      def initialize(system = "metric")
        raise BadInput.new("Units are metric or us, not “#{system}”.", field: :units) unless SYSTEMS.include?(system)

        @system = system
        freeze
      end

      def us? = system == "us"
      def unit(kind) = FIELDS.fetch(kind).fetch(system).first
      def to_si(kind, number) = number && (number * factor(kind))
      def from_si(kind, number) = number && (number / factor(kind))

      def area(m2)
        return "–" unless m2
        return us_area(m2) if us?

        m2 >= 10_000 ? "#{figure(m2 / 10_000.0)} ha" : "#{figure(m2)} m²"
      end

      def length(m)
        return "–" unless m
        return m >= 1609.344 ? "#{figure(m / 1609.344)} mi" : "#{figure(m / M_PER_FT)} ft" if us?

        m >= 1000 ? "#{figure(m / 1000.0)} km" : "#{figure(m)} m"
      end

      def volume(ml)
        return "–" unless ml
        return ml >= ML_PER_GALLON ? "#{figure(ml / ML_PER_GALLON)} gal" : "#{figure(ml / ML_PER_FL_OZ)} fl oz" if us?

        ml >= 1000 ? "#{figure(ml / 1000.0)} L" : "#{figure(ml)} mL"
      end

      def mass(g)
        return "–" unless g
        return g >= 453.59237 ? "#{figure(g / 453.59237)} lb" : "#{figure(g / 28.349523125)} oz" if us?

        g >= 1000 ? "#{figure(g / 1000.0)} kg" : "#{figure(g)} g"
      end

      # A plant's height or spacing from cm: whole inches or feet in US units.
      def depth(cm)
        return cm >= 100 ? "#{figure(cm / 100.0)} m" : "#{figure(cm)} cm" unless us?

        cm >= 91 ? "#{figure((cm / 30.48 * 2).round / 2.0)} ft" : "#{(cm / 2.54).round} in"
      end

      def rain(mm) = us? ? "#{figure(mm / 25.4)} in" : "#{figure(mm)} mm"
      def wind(km_h) = us? ? "#{(km_h / 1.609344).round} mph" : "#{km_h.round} km/h"
      def temperature(c) = us? ? "#{((c * 9 / 5) + 32).round} °F" : "#{c.round} °C"

      # Three significant figures, never more than the measure can bear; thousands apart.
      def figure(number)
        return "0" if number.zero?

        digits = [2 - Math.log10(number.abs).floor, 0].max
        text = format("%.#{[digits, 4].min}f", number)
        text = text.sub(/\.?0+\z/, "") if text.include?(".")
        whole, part = text.split(".")
        [whole.gsub(/(\d)(?=(\d{3})+\z)/, "\\1\u202F"), part].compact.join(".")
      end

      private

      def factor(kind) = FIELDS.fetch(kind).fetch(system).last

      def us_area(m2)
        m2 >= M2_PER_ACRE / 4 ? "#{figure(m2 / M2_PER_ACRE)} ac" : "#{figure(m2 / M2_PER_FT2)} ft²"
      end
    end
  end
end
