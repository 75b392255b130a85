# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      class Priority
        # Why each part of a score is what it is, in words; quantities as Units#fill reads them.
        module Reasons
          module_function

          # By days to the next ripe seed.
          def seed(one)
            return "spreads by no seed now" unless one.seed_on

            days = (one.seed_on - one.today).to_i
            days <= 0 ? "seed is ripe" : "ripe seed in #{days} days"
          end

          # Whether it climbs, and whether trees were freed.
          def strangling(one)
            return "no climber" unless one.facts.plant.is?(:climbing)

            Parts.freed?(one) ? "trees were freed" : "climbs, and no tree was freed yet"
          end

          def outlier(one) = one.nearest_m ? "the next is {length:#{one.nearest_m.round}} away" : "stands alone"

          # The nearest way of spread, with the length as Units#fill reads it.
          def spread(one)
            if one.place.way
              "#{one.place.way[:label]} {length:#{one.place.way[:m].round}} away"
            else
              "no way of spread near"
            end
          end

          # What is precious near it, or that good plants are in reach.
          def value(one)
            near = one.place.precious
            return "#{near[:label]} {length:#{near[:m].round}} away" if near && near[:m] < Parts::PRECIOUS_M

            one.facts.natives_near ? "good plants stand in reach" : "nothing rare is mapped near"
          end

          def size(one) = one.facts.area_m2 ? "{area:#{one.facts.area_m2.round}}" : "extent not known"

          # What was begun, and in how many years it ends.
          def finishing(one)
            years = one.verdict.years_to_quiet
            takes = case years
                    when nil then "no method allowed now can finish it"
                    when 1 then "1 year until quiet"
                    else "#{years} years until quiet"
                    end
            return takes unless one.started

            one.left ? "treated before; #{one.left} live plants or stems left" : "treated before; #{takes}"
          end

          # Crew hours, to quiet where there is an end.
          def cost(one)
            hours = Parts.hours(one)
            return "work not known" unless hours

            "#{format("%.3g", hours)} crew hours " \
              "#{one.verdict.hours_to_quiet ? "until quiet" : "for one pass, with no end in sight"}"
          end

          # How far the same plant stands on other ground.
          def neighbours(one)
            if one.place.source_m
              "the same plant {length:#{one.place.source_m.round}} across the fence"
            else
              "none is known across the fence"
            end
          end

          # Whether it burns hard, and how far a building is.
          def fire(one)
            return "does not carry fire" unless one.facts.plant.is?(:flammable)

            Parts.near_home?(one) ? "burns hard, a building {length:#{one.place.building_m.round}} away" : "burns hard"
          end
        end
      end
    end
  end
end
