# frozen_string_literal: true

module Thistle
  module Web
    module Season
      # How limits of the weather are said.
      class FitWords
        include Web::Words

        AIR = { wind: "wind", gust: "gusts", temperature: "temperature", delta_t: "Delta T" }.freeze
        PLAIN = { dark: "dark", inversion: "an inversion may hold drift near the ground",
                  wet_leaf: "leaves or bark are wet", raining: "rain" }.freeze

        def initialize(units)
          @units = units
        end

        HOURS = { rainfast_h: "without rain after", dry_h: "without rain or dew before" }.freeze
        ASKED = { still_air: "no inversion", calm_water: "no rain on the water", daylight: "daylight" }.freeze

        # What stands against an hour: "wind 19 km/h, over 16 km/h".
        def said_against(against)
          case against.key
          when :soil then "soil #{against.value}"
          when :rain_coming then "#{against.unknown ? "the forecast ends" : "rain"} within #{number(against.limit)} h"
          when *AIR.keys then out_of_range(against)
          else against.unknown ? "rain not known" : PLAIN.fetch(against.key)
          end
        end

        def out_of_range(against)
          name = AIR.fetch(against.key)
          return "#{name} not known" if against.unknown

          low, high = against.limit.is_a?(Hash) ? against.limit.values_at("low", "high") : [nil, against.limit]
          over = low.nil? || against.value > high
          value, limit = [against.value, over ? high : low].map { |one| measure(against.key, one) }
          beyond = "#{over ? "over" : "under"} #{limit}"
          value == limit ? "#{name} just #{beyond}" : "#{name} #{value}, #{beyond}"
        end

        def measure(key, value)
          case key
          when :temperature then @units.temperature(value)
          when :delta_t then @units.difference(value)
          else @units.wind(value)
          end
        end

        # A kind of work's limits in a sentence or two.
        def said_limits(limits)
          air = %i[wind temperature delta_t].filter_map do |key|
            low, high = limits[key]&.values_at("low", "high")
            "#{AIR[key]} #{measure(key, low)} to #{measure(key, high)}" if high
          end
          gusts = "gusts up to #{@units.wind(limits.gust)}" if limits.gust
          hours = HOURS.filter_map { |key, words| "#{number(limits[key])} h #{words}" if limits[key] }
          plain = ASKED.filter_map { |key, words| words if limits[key] }
          ["soil #{limits.soil.join(" or ")}", *air, *gusts, *hours, *plain].join(", ")
        end

        # One or two words, for a table.
        def said_shortly(against)
          { dark: "dark", soil: "soil #{against.value}", wind: against.unknown ? "wind?" : "wind", gust: "gusts",
            temperature: "temperature",
            delta_t: "dry air", inversion: "inversion", raining: "rain", wet_leaf: "wet leaf",
            rain_coming: "rain soon" }.fetch(against.key)
        end

        def short_range(stretch)
          return "#{stretch.from}–#{stretch.to} h" unless @units.us?

          "#{twelve(stretch.from)}–#{twelve(stretch.to)}".delete(" ")
        end

        # "7 to 12", hours on the clock.
        def clock_range(stretch) = "#{clock(stretch.from)} to #{clock(stretch.to)}"
        def clock(hour) = @units.us? ? twelve(hour) : format("%d:00", hour)
        def twelve(hour) = "#{((hour - 1) % 12) + 1} #{hour % 24 < 12 ? "am" : "pm"}"

        # Hours alike, run together: [[from, to, [Against]]] of one day.
        def runs_of(hours)
          hours.slice_when { |a, b| a.against.map(&:key) != b.against.map(&:key) }
               .map { |run| [run.first.hour.at, run.last.hour.at + 1, run.max_by { |said| said.against.size }.against] }
        end
      end
    end
  end
end
