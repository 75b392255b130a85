# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # What a method kills of a plant here: the planning value while records are few, the records when they are many.
      # A beta-binomial in closed form: patches differ, so that a stem of a large patch tells less than one of a small;
      # the counts that are left of a record go into a Beta that begins as the planning value, moved by what the method
      # does on other plants here.
      class Efficacy
        # One treatment as its last look counted it: where is what it may be told apart by, {size:, season:, who:}.
        Seen = Value.define(:id, :plant, :method, :treated, :alive, :where) do
          def dead = (treated - alive) / treated.to_f
        end
        # Shares, 0 to 1: mean, low and high (90 %); stems, records: what it rests on; planned: {low, likely, high} of
        # the handbook; shift: how other plants moved it, on the log odds; beta: the Beta.
        Answer = Value.define(:mean, :low, :high, :stems, :records, :planned, :shift, :beta)

        ALIKE = 12.0 # stems' worth at which half of what a record tells is its patch (memory)
        SHIFT, PLANTS = 0.6, 0.5 # standard deviations on the log odds: of a method here, of plants about it (memory)
        Z80, TAILS = 1.2815515655446004, [0.05, 0.95].freeze
        FIRM = 2.0..80.0 # stems' worth of a planning value
        ODD = 0.05 # a record that this few would be as bad as

        # seen: [Seen]; planned: ->(plant, method) { {low, likely, high} percent, as Removal#kill has it }.
        def initialize(seen, planned)
          @seen, @planned = seen.select { |one| one.treated.positive? && one.alive.between?(0, one.treated) }, planned
          @cells = @seen.group_by { |one| [one.plant, one.method] }
        end

        # [[plant, method]] that there are records of, the most stems first.
        def cells = @cells.keys.sort_by { |key| [-@cells[key].sum(&:treated), *key] }

        # The Answer of a plant and a method; the planning value where nothing was counted.
        def of(plant, method)
          (@of ||= {})[[plant, method]] ||= begin
            seen, shift = @cells.fetch([plant, method], []), shift(plant, method)
            answer(seen, prior(@planned.call(plant, method), shift), @planned.call(plant, method), shift)
          end
        end

        # By one of the things that records are told apart by: {its value => Answer}, each leaning on the whole.
        def by(plant, method, what)
          whole = of(plant, method)
          lean = [whole.mean * ALIKE, (1 - whole.mean) * ALIKE]
          found = @cells.fetch([plant, method], []).group_by { |one| one.where.to_h[what] }.compact
          found.except(nil).transform_values { |seen| answer(seen, lean, whole.planned, 0.0) }
        end

        # Records of which so few would be as bad: [Seen], the worst first.
        def odd
          cells.flat_map { |cell| @cells[cell].select { |one| odd?(one, of(*cell)) } }.sort_by(&:dead)
        end

        private

        def answer(seen, (a, b), planned, shift)
          counted = seen.sum { |one| worth(one.treated) }
          dead = seen.sum { |one| worth(one.treated) * one.dead }
          beta = Beta.new(a + dead, b + counted - dead)
          low, high = TAILS.map { |share| beta.quantile(share) }
          Answer.new(mean: beta.mean, low:, high:, stems: seen.sum(&:treated), records: seen.size, planned:, shift:,
                     beta:)
        end

        # Stems of a patch are alike: of so many, how many tell something (the design effect of a beta-binomial).
        def worth(treated) = treated * (ALIKE + 1) / (ALIKE + treated)

        # [a, b] of a planning value, its low and high as the middle 80 %, moved on the log odds.
        def prior(planned, shift)
          low, likely, high = planned.values_at("low", "likely", "high").map { |percent| percent / 100.0 }
          mean = likely.clamp(0.01, 0.99)
          spread = [(high - low) / (2 * Z80), 0.01].max
          firm = ((mean * (1 - mean) / (spread**2)) - 1).clamp(FIRM.begin, FIRM.end)
          moved = 1 / (1 + Math.exp(-(odds(mean) + shift)))
          [moved * firm, (1 - moved) * firm]
        end

        def odds(share) = Math.log(share / (1 - share))

        # What the method does on other plants here against their planning values, drawn towards nothing.
        def shift(plant, method)
          others = off_plan.fetch(method, {}).except(plant).values
          others.sum(&:first) / (others.sum(&:last) + (1 / (SHIFT**2)))
        end

        # {method => {plant => [log odds above the plan, weighed; their weight]}}
        def off_plan
          @off_plan ||= @cells.each_with_object({}) do |((plant, method), seen), all|
            likely = odds((@planned.call(plant, method)["likely"] / 100.0).clamp(0.01, 0.99))
            weighed = seen.map { |one| against_plan(one, likely) }
            (all[method] ||= {})[plant] = [weighed.sum { |off, weight| off * weight }, weighed.sum(&:last)]
          end
        end

        # [log odds above the plan's, precision] of a record, half a stem added on both sides.
        def against_plan(one, likely)
          counted = worth(one.treated)
          dead, alive = (counted * one.dead) + 0.5, (counted * (1 - one.dead)) + 0.5
          [Math.log(dead / alive) - likely, 1 / ((1 / dead) + (1 / alive) + (PLANTS**2))]
        end

        # Would fewer than ODD of such records be as bad? By the normal of what one may turn out to be.
        def odd?(one, answer)
          variance = answer.mean * (1 - answer.mean) * ((1 / worth(one.treated)) + (1 / (ALIKE + answer.stems)))
          one.dead < answer.mean - (1.645 * Math.sqrt(variance)) && one.treated >= 5
        end
      end
    end
  end
end
