# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # What a method kills of a plant here: the planning value while records are few, the records when they are many.
      # A beta-binomial in closed form: patches differ, so that a stem of a large patch tells less than one of a small;
      # the counts that are left of a record go into a Beta that begins as the planning value, moved by what the method
      # does on other plants here.
      class Efficacy
        # One treatment as its last look counted it: where is what it may be told apart by, {size:, season:, who:,
        # strength:}; patch: its id.
        Seen = Value.define(:id, :plant, :method, :treated, :alive, :where, :patch) do
          def dead = (treated - alive) / treated.to_f
          def cell = [plant, method]
        end
        # What all records of a plant and a method come to: stems' worth counted and dead, stems, records, and how far
        # off the plan (its log odds), weighed.
        Sums = Struct.new(:counted, :dead, :stems, :records, :off, :weight, :plan)
        # Shares, 0 to 1: mean, low and high (95 %); stems, records: what it rests on; planned: {low, likely, high} of
        # the handbook; shift: how other plants moved it, on the log odds; beta: the Beta.
        Answer = Value.define(:mean, :low, :high, :stems, :records, :planned, :shift, :beta)

        ALIKE = 12.0 # stems' worth at which half of what a record tells is its patch (memory)
        SHIFT, PLANTS = 0.6, 0.5 # standard deviations on the log odds: of a method here, of plants about it (memory)
        TAILS = [0.025, 0.975].freeze
        FIRM = 2.0..80.0 # stems' worth of a planning value
        ODD = 0.05 # a record that this few would be as bad as

        # seen: [Seen]; planned: ->(plant, method) { {low, likely, high} percent, as Removal#kill has it }.
        def initialize(seen, planned)
          @planned, @cells, @sums, @of, @on, @told = planned, {}, {}, {}, {}, {} # on: of each patch
          sound(seen).each { |one| add(one) }
        end

        # The same, but of some patches (ids) only what is seen now.
        def with(patches, seen) = clone.tap { |other| other.replace(patches, sound(seen)) }

        # [[plant, method]] that there are records of, the most stems first.
        def cells = @cells.keys.sort_by { |key| [-@sums[key].stems, *key] }

        # The Answer of a plant and a method; the planning value where nothing was counted.
        def of(plant, method)
          @of[[plant, method]] ||= begin
            planned, shift = @planned.call(plant, method), shift(plant, method)
            answer(@sums.fetch([plant, method], NOTHING), prior(planned, shift), planned, shift)
          end
        end

        # By one of the things that records are told apart by: {its value => Answer}, each leaning on the whole.
        def by(plant, method, what)
          whole = of(plant, method)
          lean = [whole.mean * ALIKE, (1 - whole.mean) * ALIKE]
          found = @cells.fetch([plant, method], []).group_by { |one| one.where.to_h[what] }.compact
          found.except(nil).transform_values { |seen| answer(sums_of(seen), lean, whole.planned, 0.0) }
        end

        # Records of which so few would be as bad: [Seen], the worst first.
        def odd
          cells.flat_map { |cell| @cells[cell].select { |one| odd?(one, of(*cell)) } }.sort_by(&:dead)
        end

        NOTHING = Sums.new(0.0, 0.0, 0, 0, 0.0, 0.0, nil).freeze

        protected

        # Only the cells that are touched are worked out anew, and what their methods move.
        def replace(patches, seen)
          @cells, @sums, @of, @on = @cells.dup, @sums.transform_values(&:dup), @of.dup, @on.dup
          out = patches.flat_map { |patch| @on.delete(patch) || [] }
          touched = (out + seen).map(&:cell).uniq
          take_out(out, touched)
          seen.each { |one| add(one) }
          @cells.reject! { |_, some| some.empty? }
          @sums.select! { |cell, _| @cells.key?(cell) }
          methods = touched.map(&:last)
          @of.reject! { |(_, method), _| methods.include?(method) }
        end

        private

        def take_out(records, cells)
          gone = records.to_h { |one| [one.id, true] }
          cells.each { |cell| @cells[cell] = @cells.fetch(cell, []).reject { |one| gone[one.id] } }
          records.each { |one| count(@sums[one.cell], one, -1) }
        end

        def sound(seen) = seen.select { |one| one.treated.positive? && one.alive.between?(0, one.treated) }

        def add(one)
          cell = one.cell
          (@cells[cell] ||= []) << one
          (@on[one.patch] ||= []) << one
          count(@sums[cell] ||= NOTHING.dup, one, 1)
        end

        # Adds a record to sums, or takes it out.
        def count(sums, one, sign)
          worth, dead, log_odds, weight = told(one)
          plan = sums.plan ||= odds((@planned.call(*one.cell)["likely"] / 100.0).clamp(0.01, 0.99))
          sums.counted += sign * worth
          sums.dead += sign * dead
          sums.stems += sign * one.treated
          sums.records += sign
          sums.off += sign * (log_odds - plan) * weight
          sums.weight += sign * weight
        end

        def sums_of(seen) = seen.each_with_object(NOTHING.dup) { |one, sums| count(sums, one, 1) }

        # What a record says, whatever it is of: [stems' worth, dead of them, log odds of being dead with half a stem
        # added on both sides, their precision]. Counts come again and again.
        def told(one)
          (@told[one.treated] ||= {})[one.alive] ||= begin
            worth = worth(one.treated)
            dead, alive = (worth * one.dead) + 0.5, (worth * (1 - one.dead)) + 0.5
            [worth, worth * one.dead, Math.log(dead / alive), 1 / ((1 / dead) + (1 / alive) + (PLANTS**2))].freeze
          end
        end

        def answer(sums, (a, b), planned, shift)
          beta = Beta.new(a + sums.dead, b + sums.counted - sums.dead)
          low, high = TAILS.map { |share| beta.quantile(share) }
          Answer.new(mean: beta.mean, low:, high:, stems: sums.stems, records: sums.records, planned:, shift:, beta:)
        end

        # Stems of a patch are alike: of so many, how many tell something (the design effect of a beta-binomial).
        def worth(treated) = treated * (ALIKE + 1) / (ALIKE + treated)

        # [a, b] of a planning value, its low and high as the middle 80 %, moved on the log odds.
        def prior(planned, shift)
          low, likely, high = planned.values_at("low", "likely", "high").map { |percent| percent / 100.0 }
          mean = likely.clamp(0.01, 0.99)
          spread = [(high - low) / (2 * Normal::Z80), 0.01].max
          firm = ((mean * (1 - mean) / (spread**2)) - 1).clamp(FIRM.begin, FIRM.end)
          moved = 1 / (1 + Math.exp(-(odds(mean) + shift)))
          [moved * firm, (1 - moved) * firm]
        end

        def odds(share) = Math.log(share / (1 - share))

        # What the method does on other plants here against their planning values, drawn towards nothing.
        def shift(plant, method)
          others = @sums.select { |(other, way), _| way == method && other != plant }.values
          others.sum(&:off) / (others.sum(&:weight) + (1 / (SHIFT**2)))
        end

        # Would fewer than ODD of such records be as bad? By the normal of what one may turn out to be.
        def odd?(one, answer)
          variance = answer.mean * (1 - answer.mean) * ((1 / worth(one.treated)) + (1 / (ALIKE + answer.stems)))
          one.dead < answer.mean - (Normal::Z90 * Math.sqrt(variance)) && one.treated >= 5
        end
      end
    end
  end
end
