# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # Planning values for one method on one patch: crew hours and years until it is quiet.
      class Effort
        QUIET = 0.01 # of the stand

        # Stems on a square metre of infested ground, where nobody counted (memory: planning only).
        STEMS_PER_M2 = { herb: 6.0, mat: 0.5, grass: 0.5, aquatic: 4.0, shrub: 0.3, vine: 0.3, tree: 0.2 }.freeze

        def initialize(removal, choices)
          @removal, @choices = removal, choices
        end

        # Person-hours for one pass over the patch; nil when the amount is not known.
        def hours
          amount = { stem: stems, m2: @choices.area_m2, patch: 1 }.fetch(@removal.effort_per)
          amount && (amount * @removal.minutes(@choices.size) / 60.0)
        end

        # Stems counted, or taken from the area at a planning density.
        def stems = @choices.stems || (@choices.area_m2 && (@choices.area_m2 * STEMS_PER_M2.fetch(@choices.plant.form)))

        # Yearly passes until 1 % of the stand is left, and no sooner than the seed bank is spent. nil: never.
        def years_to_quiet
          share = @removal.kill(@choices.plant)["likely"] / 100.0
          return if share < 0.3 || !@removal.removes?

          passes = share >= 1 ? 1 : (Math.log(QUIET) / Math.log(1 - share)).ceil
          [passes, @choices.plant.seed_bank_years&.fetch("likely").to_i].max
        end
      end
    end
  end
end
