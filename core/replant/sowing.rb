# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # When a native goes into the ground at a site: the next window, and why.
      class Sowing
        Window = Value.define(:from, :to, :reason, :source, :open)

        def initialize(site)
          @site = site
        end

        # [Window] still ahead or open today, soonest first.
        def windows(plant_in)
          years = [@site.year, @site.year(@site.today >> 12)]
          years.flat_map { |year| spans(plant_in, year) }.select { |from, to, *| from && to && to >= @site.today && to > from }
               .map { |from, to, reason, source| Window.new(from:, to:, reason:, source:, open: @site.today.between?(from, to)) }
               .sort_by(&:from)
        end

        private

        def spans(plant_in, year)
          { "dormant" => [dormant(year)], "spring" => [spring(year)],
            "spring_or_autumn" => [spring(year), autumn(year)], "summer_water" => [water(year)] }.fetch(plant_in)
        end

        def dormant(year)
          from = year.date(:third_frost)
          [from, from && (from + 75), "Dormant sowing: after three or four frosts, so that winter works the seed in.", "common_practice"]
        end

        def spring(year)
          frost, leaf = year.date(:last_frost), year.date(:full_leaf)
          [frost, leaf && (leaf + 14), "Plugs in spring: after the last frost, while the ground is moist.", "memory"]
        end

        def autumn(year)
          frost = year.date(:first_frost)
          [frost && (frost - 45), frost && (frost + 14), "Plugs in autumn: roots grow on after the top rests.", "memory"]
        end

        def water(year)
          leaf = year.date(:full_leaf)
          [leaf && (leaf + 14), leaf && (leaf + 75), "In warm shallow water, once it has cleared.", "memory"]
        end
      end
    end
  end
end
