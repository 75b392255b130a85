# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # Chance that a patch is still alive after n clean checks in a row, each of which would see a live plant
      # with probability `detection`: p(1-d)^n / (p(1-d)^n + 1 - p).
      module Alive
        PRIOR = 0.5      # before the first clean check (memory)
        DETECTION = 0.8  # of one careful look (memory)
        CLOSED_BELOW = 0.05

        module_function

        # 0 to 1 after so many clean checks, by Bayes: prior that it lives, detection of what lives by one check.
        def chance(clean_checks, prior: PRIOR, detection: DETECTION)
          missed = prior * ((1 - detection)**clean_checks)
          missed / (missed + 1 - prior)
        end

        # Clean checks in a row that bring the chance below a threshold.
        def checks_needed(threshold = CLOSED_BELOW) = (0..50).find { |n| chance(n) < threshold }
      end
    end
  end
end
