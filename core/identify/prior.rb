# frozen_string_literal: true

module Thistle
  module Core
    module Identify
      # What is to be expected on a day at a site before anyone looks: plants of the region that stand above
      # ground then. Also says what of each plant can be seen on that day. Rows in the order of Chances#plants.
      class Prior
        ELSEWHERE = 0.05 # a plant that its file does not give for the region (memory)
        UNDERGROUND = 0.05 # a plant that has died back on that day (memory)
        OUT_OF_PHASE = 0.15 # someone sees leaf, flower or fruit that the plant should not have then (memory)
        SLACK = 14 # days by which a phase may be early or late
        SHOWN_BY = { "leaf" => %i[leaf], "flower" => %i[flower], "fruit" => %i[green_seed ripe_seed] }.freeze

        attr_reader :weights, :date, :region

        # region: a key of Regions, or nil where the property has none.
        def initialize(chances:, site:, date:, region: nil)
          @chances, @site, @date, @region = chances, site, date, region
          phases = chances.plants.map { |plant| phases_of(plant) }
          @weights = chances.plants.each_with_index.map { |plant, n| expected(plant, phases[n]) }.freeze
          @seen = SHOWN_BY.transform_values { |any| phases.map { |now| now.intersect?(any) ? 1.0 : 0.0 }.freeze }
        end

        # 1 for each plant on which a character of that kind can be seen, else 0; nil when it can be on all.
        def seen(shows) = @seen[shows]

        # Is the year right for characters that show only in the bare season or when the year turns?
        def year_shows?(shows)
          case shows
          when "winter" then bare?
          when "turn" then turning?
          else true
          end
        end

        # Phases of a plant within SLACK of the day.
        def phases_of(plant)
          years = [@site.year(date - SLACK), @site.year(date + SLACK)].uniq
          calendar = @site.calendar(plant)
          years.flat_map { |year| calendar.phenophases(year) }
               .select { |span| date.between?(span.from - SLACK, span.to + SLACK) }.map(&:phase).uniq
        end

        private

        def expected(plant, phases)
          here = region.nil? || plant.grows_in?(region) ? 1.0 : ELSEWHERE
          stands = phases.any? || plant.is?(:woody, :evergreen) ? 1.0 : UNDERGROUND
          here * stands
        end

        def year = @site.year(date)

        def bare?
          first, last = year.date(:leaf_out), year.date(:third_frost)
          !(first && last && date.between?(first - 10, last + 14))
        end

        def turning?
          spring, summer, autumn = year.date(:bud_swell), year.date(:full_leaf), year.date(:first_frost)
          (spring && summer && date.between?(spring - 21, summer - 7)) ||
            (autumn && date.between?(autumn - 28, autumn + 35))
        end
      end
    end
  end
end
