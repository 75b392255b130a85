# frozen_string_literal: true

module Thistle
  module Web
    # How limits of the weather are said.
    module FitWords
      AIR = { wind: "wind", gust: "gusts", temperature: "temperature", delta_t: "Delta T" }.freeze
      PLAIN = { dark: "dark", inversion: "an inversion may hold drift near the ground", wet_leaf: "leaves or bark are wet", raining: "rain" }.freeze

      # What stands against an hour: "wind 19 km/h, over 16 km/h".
      def said_against(against)
        case against.key
        when :soil then "soil #{against.value}"
        when :rain_coming then against.unknown ? "the forecast ends within #{number(against.limit)} h" : "rain within #{number(against.limit)} h"
        when *AIR.keys then out_of_range(against)
        else against.unknown ? "#{against.key == :raining ? "rain" : against.key} not known" : PLAIN.fetch(against.key)
        end
      end

      def out_of_range(against)
        name = AIR.fetch(against.key)
        return "#{name} not known" if against.unknown

        low, high = against.limit.is_a?(Hash) ? against.limit.values_at("low", "high") : [nil, against.limit]
        over = low.nil? || against.value > high
        "#{name} #{measure(against.key, against.value)}, #{over ? "over" : "under"} #{measure(against.key, over ? high : low)}"
      end

      def measure(key, value)
        case key
        when :temperature then units.temperature(value)
        when :delta_t then units.difference(value)
        else units.wind(value)
        end
      end

      # A kind of work's limits in a sentence or two.
      def said_limits(limits)
        parts = ["soil #{limits.soil.join(" or ")}"]
        parts << "wind #{units.wind(limits.wind["low"])} to #{units.wind(limits.wind["high"])}" if limits.wind
        parts << "gusts up to #{units.wind(limits.gust)}" if limits.gust
        parts << "#{units.temperature(limits.temperature["low"])} to #{units.temperature(limits.temperature["high"])}"
        parts << "Delta T #{units.difference(limits.delta_t["low"])} to #{units.difference(limits.delta_t["high"])}" if limits.delta_t
        parts << "#{number(limits.rainfast_h)} h without rain after" if limits.rainfast_h
        parts << "#{number(limits.dry_h)} h without rain or dew before" if limits.dry_h
        parts << "no inversion" if limits.still_air
        parts << "no rain on the water" if limits.calm_water
        parts << "daylight" if limits.daylight
        parts.join(", ")
      end

      # "7 to 12", hours on the clock.
      def clock_range(stretch) = "#{clock(stretch.from)} to #{clock(stretch.to)}"
      def clock(hour) = units.us? ? twelve(hour) : format("%d:00", hour)
      def twelve(hour) = "#{((hour - 1) % 12) + 1} #{hour % 24 < 12 ? "am" : "pm"}"

      # Hours alike, run together: [[from, to, [Against]]] of one day.
      def runs_of(hours)
        hours.slice_when { |a, b| a.against.map(&:key) != b.against.map(&:key) }
             .map { |run| [run.first.hour.at, run.last.hour.at + 1, run.max_by { |said| said.against.size }.against] }
      end
    end
  end
end
