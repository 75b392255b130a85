# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # Which patch first: a score in the open. Each part is 0 to 1 with the words that say why; the steward's weights make
      # one number of them.
      #
      #   Priority.new(candidates, weights).rows  # => [Row], highest first
      class Priority
        # What a patch is ranked by. choices: its Choices; today; verdict: its best move; seed_on: the next ripe seed or nil;
        # nearest_m: to the next patch of the same plant, nil for none within FAR; share: of that plant's ground here;
        # place: Place; started: was it treated before? left: stems counted at the last check, or nil.
        Candidate = Value.define(:id, :code, :choices, :today, :verdict, :seed_on, :nearest_m, :share, :place, :started, :left)
        # What its place says (Store::Surroundings): way: the nearest way of spread {label, m, spreads}; precious: what of
        # worth is near {label, m}; source_m: to the same plant on other ground; building_m. nil where none is near.
        Place = Value.define(:way, :precious, :source_m, :building_m)
        Part = Value.define(:key, :value, :text)
        Row = Value.define(:candidate, :score, :parts) do
          def id = candidate.id
        end

        TERMS = {
          "seed" => "Seed about to fall", "strangling" => "Trees being strangled", "outlier" => "Outlier, not core",
          "spread" => "Near ways of spread", "value" => "Good ground at risk", "size" => "Small enough to finish",
          "finishing" => "Chance of finishing", "cost" => "Little work", "neighbours" => "No source across the fence", "fire" => "Carries fire"
        }.freeze
        MOST = 10 # of a weight
        FAR = 150.0 # m at which a patch stands alone (memory)
        SEED_DAYS = 120.0 # ahead, from which ripe seed begins to press (memory)
        WAY_M, PRECIOUS_M = 40.0, 60.0 # distances at which nearness has fallen to a third (memory)

        # weights: {part => 0 to 10}; raises BadInput when none is above zero.
        def initialize(candidates, weights)
          @candidates = candidates
          @weights = TERMS.keys.to_h { |key| [key, weights.fetch(key, 0).to_f.clamp(0, MOST)] }
          @whole = @weights.values.sum
          raise BadInput.new("Every weight is zero: give at least one part some weight.", field: :weights) unless @whole.positive?
        end

        def rows
          @rows ||= @candidates.map { |candidate| row(candidate) }.sort_by { |row| [-row.score, row.id] }.freeze
        end

        # The parts of one patch, which no weight changes.
        def self.parts(candidate) = new([], { "seed" => 1 }).parts(candidate)

        def parts(candidate)
          TERMS.keys.map { |key| send(key, candidate).then { |value, text| Part.new(key:, value: value.clamp(0.0, 1.0), text:) } }.freeze
        end

        private

        def row(candidate)
          parts = KEPT.fetch(candidate) { parts(candidate) }
          Row.new(candidate:, score: parts.sum { |part| @weights[part.key] * part.value } / @whole, parts:)
        end

        KEPT = Kept.new(20_000)
        private_constant :KEPT

        def seed(one)
          return [0, "spreads by no seed now"] unless one.seed_on

          days = (one.seed_on - one.today).to_i
          [1 - (days / SEED_DAYS), days <= 0 ? "seed is ripe" : "ripe seed in #{days} days"]
        end

        def strangling(one)
          plant = one.choices.plant
          return [0, "no climber"] unless plant.is?(:climbing)

          freed = one.choices.freed_on
          if freed && one.today - freed < 730
            [0, "trees were freed"]
          else
            [plant.woody? ? 1 : 0.5, "climbs, and no tree was freed yet"]
          end
        end

        def outlier(one)
          alone = [(one.nearest_m || FAR) / FAR, 1].min
          [(alone + 1 - one.share) / 2, one.nearest_m ? "the next is {length:#{one.nearest_m.round}} away" : "stands alone"]
        end

        def spread(one)
          way = one.place&.way or return [0, "no way of spread near"]
          [way[:spreads] * Math.exp(-way[:m] / WAY_M), "#{way[:label]} {length:#{way[:m].round}} away"]
        end

        def value(one)
          near = one.place&.precious
          natives = one.choices.natives_near
          return [near[:worth] * Math.exp(-near[:m] / PRECIOUS_M), "#{near[:label]} {length:#{near[:m].round}} away"] if near && near[:m] < PRECIOUS_M

          natives ? [0.5, "good plants stand in reach"] : [0, "nothing rare is mapped near"]
        end

        def size(one)
          area = one.choices.area_m2 or return [0.5, "extent not known"]
          [1 - (Math.log10(1 + area) / 4.5), "{area:#{area.round}}"]
        end

        def finishing(one)
          years = one.verdict.years_to_quiet or return [one.started ? 0.3 : 0,
                                                        one.started ? "begun, and nothing open now ends it" : "nothing open now ends it"]
          ease = 1 - [years / 12.0, 1].min
          return [0.4 * ease, "#{years} years to quiet"] unless one.started

          [0.6 + (0.4 * ease), one.left ? "begun, #{one.left} were left" : "begun, #{years} years to quiet"]
        end

        def cost(one)
          hours = one.verdict.hours_to_quiet || one.verdict.hours or return [0.3, "work not known"]
          [1 - (Math.log10(1 + hours) / 2.5), "#{format("%.3g", hours)} crew hours to quiet"]
        end

        def neighbours(one)
          source = one.place&.source_m or return [1, "none is known across the fence"]
          [[source / 300.0, 1].min, "the same plant {length:#{source.round}} across the fence"]
        end

        def fire(one)
          return [0, "does not carry fire"] unless one.choices.plant.is?(:flammable)

          home = one.place&.building_m
          home && home < 100 ? [1, "burns hard, a building {length:#{home.round}} away"] : [0.6, "burns hard"]
        end
      end
    end
  end
end
