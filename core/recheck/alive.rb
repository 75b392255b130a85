# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # Chance that a patch is still alive after clean checks in a row, each of which would see a live plant with a
      # probability of its own: p·Π(1-d) / (p·Π(1-d) + 1 - p).
      module Alive
        PRIOR = 0.5      # before the first clean check (memory)
        DETECTION = 0.8  # of one careful look, where nobody said how it was searched (memory)
        CLOSED_BELOW = 0.05
        # Metres to each side together in which one sees a plant, walking slowly (memory).
        SWEEPS = { "open" => 4.0, "patchy" => 2.0, "dense" => 1.0 }.freeze
        WALKED = 15.0 # metres a minute, while searching (memory)
        MOST = 0.98 # that any look finds (memory)

        module_function

        # 0 to 1 after clean checks that would each have seen it with these probabilities.
        def after(detections, prior: PRIOR)
          missed = prior * detections.reduce(1.0) { |left, seen| left * (1 - seen) }
          missed / (missed + 1 - prior)
        end

        # The same after so many alike.
        def chance(clean_checks, prior: PRIOR, detection: DETECTION) = after([detection] * clean_checks, prior:)

        # What a search of a ground finds of what shows there, 0 to 1: people who walked for so many minutes each, where
        # one sees so far (a key of SWEEPS), each at random (Koopman); nil where nobody said how long.
        def detection(people:, minutes:, sight:, m2:)
          return unless minutes && m2

          swept = (people || 1) * minutes * WALKED * SWEEPS.fetch(sight || "patchy")
          [1 - Math.exp(-swept / [m2, 1.0].max), MOST].min
        end
      end
    end
  end
end
