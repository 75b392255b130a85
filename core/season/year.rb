# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # The anchors of one season-year at a site. It starts on 1 January north of the equator and on 1 July
      # south of it, so that spring always comes before autumn. Warmth marks are counted in degree days above
      # 5 °C from the start; frost marks are nights at or below 0 °C (hard freeze: -2.2 °C, 28 °F).
      class Year
        # Degree days above 5 °C (memory: oak woods at middle latitudes).
        WARMTH = { bud_swell: ["bud swell", 105], leaf_out: ["leaf-out", 210], full_leaf: ["full leaf", 480] }.freeze
        FROST = { last_frost: ["last frost", 0.0], first_frost: ["first frost", 0.0],
                  third_frost: ["third frost", 0.0], hard_freeze: ["hard freeze", -2.2] }.freeze
        BASE = 5.0
        MIDDLE = 200 # days after the start: frosts before it are spring's, after it autumn's

        attr_reader :start

        def self.start_of(date, latitude)
          return Date.new(date.year) unless latitude.negative?

          date.month >= 7 ? Date.new(date.year, 7) : Date.new(date.year - 1, 7)
        end

        def initialize(site, start)
          @site = site
          @start = start
          @anchors = {}
        end

        def finish = (start >> 12) - 1
        def cover?(date) = date.between?(start, finish)

        # Anchor by key; nil where the climate has none (no frost in the tropics).
        def anchor(key)
          @anchors.fetch(key) { @anchors[key] = find(key) }
        end

        def anchors = (WARMTH.keys + FROST.keys).filter_map { |key| anchor(key) }.sort_by(&:date)

        # The date of an anchor, or of :season_start and :season_end; nil when the climate has none.
        def date(key)
          case key
          when :season_start then start
          when :season_end then finish
          else anchor(key)&.date
          end
        end

        private

        def find(key)
          past = @site.history.filter_map { |first| offset(key, @site.measured(first...(first >> 12)), first) }.sort
          return if past.empty?

          early, middle, late = [0.1, 0.5, 0.9].map { |share| past[(share * (past.size - 1)).round] }
          days, measured = this_year(key, middle, late)
          Anchor.new(key:, label: (WARMTH[key] || FROST[key]).first, date: start + days, early: start + early,
                     late: start + late, measured:, working: working(key, past.size, measured))
        end

        # Days from the start, and whether the thermometer has said so already.
        def this_year(key, middle, late)
          days = offset(key, @site.days(start..finish), start) if WARMTH.key?(key)
          return [days, start + days <= @site.today] if days

          seen = offset(key, @site.measured(start..[finish, @site.today].min), start)
          return [middle, false] unless seen

          settled = key != :last_frost || @site.today > start + late
          settled ? [seen, true] : [[seen, middle].max, false]
        end

        def offset(key, days, first)
          return warmth_offset(WARMTH[key].last, days, first) if WARMTH.key?(key)

          nights = days.select { |day| day.tmin <= FROST[key].last }.map { |day| (day.date - first).to_i }
          spring, autumn = nights.partition { |n| n < MIDDLE }
          { last_frost: spring.last, first_frost: autumn[0], third_frost: autumn[2], hard_freeze: autumn[0] }[key]
        end

        def warmth_offset(target, days, first)
          sum = 0.0
          hit = days.find { |day| (sum += [day.tmean - BASE, 0].max) >= target }
          hit && (hit.date - first).to_i
        end

        def working(key, years, measured)
          rule = WARMTH.key?(key) ? "#{WARMTH[key].last} degree days above 5 °C since #{start.strftime("%-d %B")}" : frost_rule(key)
          where = measured ? "reached at this station" : "expected from #{years} years at this station"
          [Step.new(label: "Rule", formula: rule, value: where, source: "memory")]
        end

        def frost_rule(key)
          "#{{ last_frost: "last spring night", first_frost: "first autumn night", third_frost: "third autumn night",
               hard_freeze: "first autumn night" }[key]} at or below #{FROST[key].last} °C"
        end
      end
    end
  end
end
