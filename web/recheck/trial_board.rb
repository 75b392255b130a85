# frozen_string_literal: true

module Thistle
  module Web
    module Recheck
      # A trial as it stands: its arms, the chance that one is better in words, its tags.
      class TrialBoard
        WIDE, HIGH, STEPS = 520.0, 120.0, 120
        # A chance in words (common speech, from memory).
        SAID = { 0.99 => "nearly certain", 0.95 => "very likely", 0.8 => "likely", 0.65 => "rather likely" }.freeze

        attr_reader :run

        def initialize(run)
          @run = run
        end

        def trial = @trial ||= run.trial
        def arms = trial.arms
        def name(arm) = [run.removals[arm].name, run.how(arm)].compact.join(", ")

        # The verdict as a sentence.
        def said
          ahead, behind = name(trial.leading), name(1 - trial.leading)
          case trial.settled
          when :better then "Settled: it is #{likely} (#{percent} %) that “#{ahead}” kills more here than “#{behind}”."
          when :alike then "Decided: the methods hardly differ here. The wrong one would lose under 2 stems in 100."
          else waiting(ahead)
          end
        end

        def likely = SAID.find { |least, _| trial.chance >= least }&.last || "as likely as not"
        def percent = trial.chance >= 0.9995 ? "over 99.9" : (trial.chance * 100).round(1).to_s.delete_suffix(".0")

        # The curve of an arm's share, as a path; both on one scale.
        def curve(arm)
          points = heights[arm].each_with_index.map do |height, n|
            "#{(WIDE * n / STEPS).round(1)} #{(HIGH - (HIGH * height / heights.flatten.max)).round(1)}"
          end
          "M0 #{HIGH}L#{points.join("L")}L#{WIDE} #{HIGH}Z"
        end

        # {low, high} percent of an arm's share dead, as shares are told everywhere; 0 to 100 before any is counted.
        def range(arm)
          one = arms[arm]
          shares = one.counted.zero? ? [0, 1] : Core::Interval.wilson(one.dead, one.counted)
          %i[low high].zip(shares.map { |share| (100 * share).round }).to_h
        end

        private

        def waiting(ahead)
          least = Core::Recheck::Trial::ENOUGH
          return "Open: count at least #{least} stems of each." if arms.any? { |arm| arm.counted < least }

          "Open: it is #{likely} (#{percent} %) that “#{ahead}” kills more here."
        end

        def heights
          @heights ||= arms.map { |arm| (0..STEPS).map { |n| arm.beta.density(n.fdiv(STEPS).clamp(0.002, 0.998)) } }
        end
      end
    end
  end
end
