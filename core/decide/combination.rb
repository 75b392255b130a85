# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # What to do in a patch of mixed sizes: seed first, trees freed, then each size by what suits it, with totals.
      class Combination
        # size: nil for what is done to the whole patch before anything else.
        Step = Value.define(:size, :stems, :verdict)

        # The bench's facts need `sizes`, stems by size.
        def initialize(bench)
          @bench, @facts = bench, bench.facts
        end

        def mixed? = @facts.sizes ? @facts.sizes.count { |_, stems| stems.to_i.positive? } > 1 : false

        # [Step] in the order of work: what can be done now before what waits.
        def steps
          @steps ||= (first_of_all + by_size).freeze
        end

        def verdicts = steps.map(&:verdict)
        def hours = total(&:hours)
        def litres = total { |verdict| verdict.effort.litres }
        def cost = total { |verdict| verdict.effort.cost }

        # Until all of it is quiet; nil where a part of it never is.
        def years
          all = verdicts.select { |verdict| verdict.removal.removes? }.map(&:years_to_quiet)
          all.max if all.any? && all.all?
        end

        # The share likely killed, weighed by stems, percent.
        def kill
          counted = by_size.select { |step| step.verdict.removal.removes? }
          counted.sum { |step| step.stems * step.verdict.kill["likely"] } / counted.sum(&:stems).to_f if counted.any?
        end

        private

        # Seed is bagged and trees are freed before anything else.
        def first_of_all
          early = @bench.verdicts.select do |verdict|
            verdict.go? && verdict.removal.is?(:seed_stop, :freeing) && !verdict.removal.is?(:harvest)
          end
          early.partition { |verdict| verdict.removal.is?(:seed_stop) }.flatten
               .map { |verdict| Step.new(size: nil, stems: bearing, verdict:) }
        end

        def by_size
          @by_size ||= Removal::SIZES.filter_map do |size|
            stems = @facts.sizes[size].to_i
            best = stems.positive? &&
                   Bench.new(@facts.with(size:, stems:, sizes: nil, area_m2: share(stems)), @bench.site).best
            Step.new(size:, stems:, verdict: best) if best
          end.sort_by.with_index { |step, n| [step.verdict.go? ? 0 : 1, step.verdict.until || @facts.date, n] }
        end

        def all_stems = @facts.sizes.values.sum(&:to_i)
        def bearing = @facts.sizes.except("seedling", "pencil").values.sum(&:to_i)
        def share(stems) = @facts.area_m2 && (@facts.area_m2 * stems / all_stems)

        def total(&)
          amounts = verdicts.map(&)
          amounts.sum if amounts.all?
        end
      end
    end
  end
end
