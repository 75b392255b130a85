# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # Schools of making ground ready, side by side for one place and one day of planting: when each has to begin, what
      # it costs, what of the invader it leaves, and whether it is right here (knowledge/readying.yml).
      class Readying
        # word: :go, :ask or :no; from: the day to begin by, nil where the season for it does not fit before planting;
        # hours, cost: for the whole ground; reasons: [text].
        Row = Value.define(:key, :label, :word, :from, :weeks, :hours, :cost, :leaves, :reasons, :text, :source)
        HOT = 29.0 # °C of usual afternoons, from which clear sheet heats soil enough (memory)
        SLACK = 7 # days
        WORDS = %i[go ask no].freeze
        # plant: the invader, or nil; m2; slope: "flat", "slope" or "steep"; stance: the property's ("none", "stem" or
        # "any"); fire_adapted: true or false; lines: "yes" or "no"; kind: "seed", "plugs" or "woody"; light: as the
        # sheet has it; wage: of an hour; undug: why nobody digs there. nil where nobody said.
        Ground = Value.define(:plant, :m2, :slope, :stance, :fire_adapted, :lines, :kind, :light, :wage,
                              :undug)

        # by: the first day of planting; site: a Season::Site.
        def initialize(ground, site, by:)
          @ground, @site, @by = ground, site, by
        end

        # [Row]: what is right here first, the cheapest of those in front.
        def rows
          @rows ||= Knowledge.shipped.readying.map { |key, school| row(key, school) }
                             .sort_by { |row| [WORDS.index(row.word), row.cost] }.freeze
        end

        private

        def row(key, school)
          against = objections(key, school)
          from = start(school)
          against.concat(late(school, from))
          hours, cost = price(school)
          word = WORDS.reverse.find { |one| against.any? { |said, _| said == one } } || :go
          Row.new(key:, label: school["label"], word:, from:, weeks: school["weeks"], hours:,
                  cost: (hours * @ground.wage) + (cost * @ground.m2), leaves: school["leaves"],
                  reasons: against.map(&:last).freeze, text: school["text"], source: school["source"])
        end

        # [person-hours for the ground, money for material on a m²]: its own, or those of the method that it is.
        def price(school)
          return [school["hours"] * @ground.m2 / 100.0, school["cost"]] unless school["as"]

          removal = Knowledge.shipped.removal(school["as"])
          [[removal.task.at * @ground.m2 / 60.0, removal.task.least_h.to_f].max, removal.cost.fetch("per_m2", 0.0)]
        end

        # Is there still time for it before planting?
        def late(school, from)
          return [[:no, "its season does not fit before planting"]] if from.nil?
          return [] if from >= @site.today

          least, likely = school["weeks"]
          if @site.today + (least * 7) > @by || @by - from > (likely * 7) + SLACK
            return [[:no, "too late before this planting"]]
          end

          likely.zero? ? [] : [[:ask, "short of time: is less than usual (about #{(likely * 7).round} days) enough?"]]
        end

        # [[word, why]]
        def objections(key, school)
          [*lie(key, school), *size(school), *manners(school), *needed(school), *sown(key)]
        end

        def lie(key, school)
          return [[:no, "nobody digs there: #{@ground.undug}"]] if school["digs"] && @ground.undug

          steep = @ground.slope == "steep"
          if steep && key != "wait"
            return [[:no, "a steep slope that was opened is planted in the same season, or washes away"]]
          end
          return [] unless school["flat"]
          return [[:ask, "is it flat? Bare soil washes from a slope"]] if @ground.slope.nil?

          @ground.slope == "flat" ? [] : [[:no, "bare soil washes from a slope"]]
        end

        def size(school)
          return [] unless school["small"] && @ground.m2 > school["small"]

          [[:no, "done on {area:#{school["small"].round}} at most"]]
        end

        # What the invader makes of it.
        def manners(school)
          return [] unless @ground.plant

          pieces = @ground.plant.is?(:fragments_root)
          suckers = @ground.plant.is?(:root_suckers, :layers)
          [("it grows from pieces: each cut makes two" if school["not_for"]&.include?("pieces") && pieces),
           ("it comes up from roots that are cut" if school["not_for"]&.include?("suckers") && suckers)]
            .compact.map { |why| [:no, why] }
        end

        def needed(school)
          case school["needs"]
          when "herbicide" then herbicide
          when "heat" then heat
          when "keeper" then [[:ask, "is there somebody who keeps poultry, and water for it?"]]
          when "fire" then fire
          when "lines" then lines
          else []
          end
        end

        def herbicide
          case @ground.stance
          when "none" then [[:no, "no herbicide is used here"]]
          when "any" then [[:ask, "what does the label say of planting afterwards?"]]
          else [[:no, "only stems are treated here"]]
          end
        end

        def heat
          return [[:no, "it needs full sun"]] if @ground.light && @ground.light != "sun"
          return [[:no, "summers are not hot enough here"]] if hottest.last < HOT

          @ground.light ? [] : [[:ask, "does it lie in full sun?"]]
        end

        def fire
          return [[:no, "fire does not belong to this vegetation"]] if @ground.fire_adapted == false

          burned = @ground.fire_adapted
          [[:ask, burned ? "permit, weather and a trained crew?" : "has the vegetation here always burned?"]]
        end

        def lines
          case @ground.lines
          when "no" then []
          when "yes" then [[:no, "buried lines"]]
          else [[:ask, "are there buried lines?"]]
          end
        end

        # Seed wants bare soil.
        def sown(key)
          @ground.kind == "seed" && key == "smother" ? [[:no, "seed does not come up through chips"]] : []
        end

        # The day to begin by: its likely weeks before planting, moved into its season.
        def start(school)
          weeks = school["weeks"][1]
          latest = @by - (weeks * 7).round
          case school["season"]
          when "hot" then hot_start(school)
          when "growing" then growing?(latest, weeks) ? latest : growing_start(weeks)
          when "autumn" then autumn_start
          else latest
          end
        end

        # [first day, °C of usual afternoons] of the hottest six weeks before planting.
        def hottest
          @hottest ||= (0..51).map { |n| @by - 42 - (n * 7) }.map do |first|
            afternoons = first.step(first + 41, 3).map { |date| @site.usual(date).tmax }
            [first, afternoons.sum / afternoons.size]
          end.max_by(&:last)
        end

        def hot_start(school)
          first, = hottest
          first + (school["weeks"][1] * 7) <= @by ? first : nil
        end

        # The last growing season before planting: the day by which it has to begin there.
        def growing_start(weeks)
          marks = [@site.year(@by), @site.year(@by << 12)].filter_map { |year| year.moment(:first_frost)&.date }
          last = marks.select { |date| date <= @by }.max or return
          first = last - (weeks * 7).round
          growing?(first, weeks) ? first : nil
        end

        # Is it warm enough for green through those weeks?
        def growing?(first, weeks)
          first.step(first + (weeks * 7).round, 14).all? { |date| @site.usual(date).tmean > 6 }
        end

        def autumn_start
          marks = [@site.year(@by), @site.year(@by << 12)].filter_map { |year| year.moment(:first_frost)&.date }
          marks.select { |date| date <= @by }.max
        end
      end
    end
  end
end
