# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      class Priority
        # The parts of a score, each 0 to 1. How each falls off is a planning value (memory).
        module Parts
          FAR = 150.0 # m at which a patch stands alone
          SEED_DAYS = 120.0 # ahead, from which ripe seed begins to press
          WAY_M, PRECIOUS_M = 40.0, 60.0 # distances at which nearness has fallen to a third
          SOURCE_M, HOME_M = 300.0, 100.0 # as far as a source, and a fire, reach
          FREED_DAYS, LONG = 730, 12.0 # for which a freed tree is out of danger; years that are the same as never

          KEYS = TERMS.keys.map(&:to_sym).freeze

          module_function

          def of(one) = KEYS.map { |key| public_send(key, one).to_f.clamp(0.0, 1.0) }

          def seed(one) = one.seed_on ? 1 - ((one.seed_on - one.today).to_i / SEED_DAYS) : 0

          # 1 for a woody climber on trees that nobody freed, half for one that is not woody.
          def strangling(one)
            plant = one.facts.plant
            return 0 if !plant.is?(:climbing) || freed?(one)

            plant.woody? ? 1 : 0.5
          end

          def freed?(one) = one.facts.freed_on && one.today - one.facts.freed_on < FREED_DAYS
          def outlier(one) = ([(one.nearest_m || FAR) / FAR, 1].min + 1 - one.share) / 2
          def spread(one) = one.place.way ? one.place.way[:spreads] * Math.exp(-one.place.way[:m] / WAY_M) : 0

          # By the distance to what is precious, half where good plants stand in reach.
          def value(one)
            near = one.place.precious
            return near[:worth] * Math.exp(-near[:m] / PRECIOUS_M) if near && near[:m] < PRECIOUS_M

            one.facts.natives_near ? 0.5 : 0
          end

          def size(one) = one.facts.area_m2 ? 1 - (Math.log10(1 + one.facts.area_m2) / 4.5) : 0.5

          # More for what was begun, and for what is quiet in fewer years.
          def finishing(one)
            years = one.verdict.years_to_quiet or return one.started ? 0.3 : 0
            ease = 1 - [years / LONG, 1].min
            one.started ? 0.6 + (0.4 * ease) : 0.4 * ease
          end

          # 1 for no work, falling with the logarithm of crew hours to quiet.
          def cost(one)
            hours = hours(one)
            hours ? 1 - (Math.log10(1 + hours) / 2.5) : 0.3
          end

          def hours(one) = one.verdict.hours_to_quiet || one.verdict.hours
          def neighbours(one) = one.place.source_m ? one.place.source_m / SOURCE_M : 1

          # 1 for what burns hard beside a building.
          def fire(one)
            return 0 unless one.facts.plant.is?(:flammable)

            near_home?(one) ? 1 : 0.6
          end

          def near_home?(one) = one.place.building_m && one.place.building_m < HOME_M
        end
      end
    end
  end
end
