# frozen_string_literal: true

module Thistle
  module Core
    module Identify
      # How likely each aspect of a plant is on a day, and what of it is there to be seen. All of it is soft: a site's
      # year says when a plant is in leaf, flower and fruit, and climate, height, shade and the year move that by weeks;
      # nothing is ever quite shut out.
      class Mixture
        SURE = 14 # days by which a phase may be off and count in full (memory)
        FADES = 25.0 # days in which it fades after them (memory)
        LEAST = 0.06 # never less likely than that in the wrong season (memory)
        SHOWN_BY = { "leaf" => %i[leaf], "flower" => %i[flower], "fruit" => %i[green_seed ripe_seed] }.freeze
        NO_DAY = 400 # days off, where a plant has no such phase

        # Of what stands green: seedlings, young plants and shoots by how a plant lives; the rest is grown (memory).
        GREEN = { annual: [0.12, 0.3, 0.04], biennial: [0.08, 0.38, 0.04], woody: [0.05, 0.25, 0.08],
                  other: [0.05, 0.2, 0.08] }.freeze
        # Of last season's growth, what still stands dead, by form; low and soft herbs leave little (memory).
        STANDS = { grass: 0.7, herb: 0.5, vine: 0.4 }.freeze
        TALL_CM = 60
        COMING = 0.6 # of what will be grown, is still coming up about the first leaf of the year (memory)
        TURNS = 0.7 # of what is grown, turns about its last leaf (memory)
        BESIDE = 0.04 # of dead stems, beside what is green again (memory)
        UNDERGROUND = 0.05 # what there is to see of a herb that has died back and left nothing (memory)

        attr_reader :plant

        # calendar: the plant's Season::Phenology at the site.
        def initialize(plant, calendar, date)
          @plant, @date = plant, date
          @spans = years(calendar).flat_map { |year| calendar.spans(year) }
        end

        # How likely the plant is to be seen at all, 0 to 1.
        def standing = plant.woody? || plant.is?(:evergreen) ? 1.0 : (green + dead).clamp(UNDERGROUND, 1.0)

        # {aspect => chance}, adding up to 1.
        def shares
          @shares ||= begin
            seedling, young, shoots = GREEN.fetch(life)
            early, late = edge(:from, SURE), edge(:to, SURE)
            rest = (1 - seedling - young - shoots) * COMING * early
            if plant.is?(:annual) then seedling += rest
            elsif !plant.woody? then shoots += rest
            end
            grown = 1 - seedling - young - shoots
            turning = TURNS * late * grown
            parts = { "seedling" => seedling * leaf, "young" => young, "sprouting" => shoots * leaf,
                      "turning" => turning, "grown" => grown - turning }
            parts = parts.transform_values { |share| share * green }.merge("dead" => dead)
            total = parts.values.sum
            parts.transform_values { |share| share / total }
          end
        end

        # {organ => chance that it is there to be seen} on an aspect.
        def visible(aspect)
          own = { "leaf" => leaf, "flower" => near("flower"), "fruit" => near("fruit") }
          own.merge(aspect.visible) do |organ, by_year, by_aspect|
            organ == "leaf" && plant.woody? ? [by_year, by_aspect].min : by_aspect
          end
        end

        # {state => share} of a character over the day's specimens; nil where nothing is known.
        def looks(character, aspects)
          told = shares.filter_map do |key, share|
            looks = aspects.fetch(key).shares(character, plant)
            [share, looks] if looks
          end
          told.any? && character.states.to_h { |state, _| [state, told.sum { |share, looks| share * looks[state] }] }
        end

        # The chance that a character's organ is there to be seen on one.
        def shown(character, aspects)
          return 1.0 unless SHOWN_BY.key?(character.shows)

          shares.sum { |key, share| share * visible(aspects.fetch(key)).fetch(character.shows) }
        end

        private

        def life
          return :woody if plant.woody?

          %i[annual biennial].find { |trait| plant.is?(trait) } || :other
        end

        # What is green of it: wood and evergreens stand all year, and what flowers stands.
        def green = plant.woody? || plant.is?(:evergreen) ? 1.0 : [leaf, near("flower")].max

        def dead
          return 0.0 if plant.woody? || plant.is?(:evergreen) || plant.aquatic?

          stands = STANDS.fetch(plant.form, 0.1)
          stands *= 0.3 if plant.form == :herb && plant.characters.dig("height", "high").to_f < TALL_CM
          [(1 - leaf) * stands, BESIDE * stands].max
        end

        def leaf = near("leaf")

        # 1 in the weeks of an organ, fading outside them.
        def near(organ)
          (@near ||= {})[organ] ||= begin
            own = @spans.select { |span| SHOWN_BY.fetch(organ).include?(span.phase) }
            off = own.map { |span| [(span.from - @date).to_i, (@date - span.to).to_i, 0].max }.min || NO_DAY
            fading(off)
          end
        end

        def fading(off) = off <= SURE ? 1.0 : [Math.exp(-(off - SURE) / FADES), LEAST].max

        # Near the day on which leaves come (:from) or go (:to), 1 to 0 over some days either way; 0 where they stay.
        def edge(side, days)
          return 0.0 if plant.is?(:evergreen)

          own = @spans.select { |span| span.phase == :leaf && span.to - span.from < 360 }
          off = own.map { |span| (@date - (side == :from ? span.from + 14 : span.to - 14)).to_i.abs }.min || NO_DAY
          [1 - (off / (2.0 * days)), 0.0].max
        end

        def years(calendar)
          site = calendar.site
          [@date - 366, @date, @date + 100].map { |day| site.year(day) }.uniq
        end
      end
    end
  end
end
