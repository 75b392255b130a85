# frozen_string_literal: true

module Thistle
  module Store
    # Model: a tagged stem of a trial.
    class TrialStem < Sequel::Model(:trial_stems)
    end
  end
end
