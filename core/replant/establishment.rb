# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # Does it take? What counts of living plants say of how many live, how many go in again, how many must be looked
      # at to know, and whether the cover is what its year leads one to expect.
      class Establishment
        WEIGHT = 6.0 # plants that a planning value counts as (memory)
        Z = Interval::Z
        # mean: share that lives, counts over a planning value; low, high: of what was counted (Interval), nil where
        # nothing was; counted: plants looked at; source.
        Survival = Value.define(:mean, :low, :high, :counted, :source)
        Cover = Value.define(:mean, :low, :high, :frames, :enough, :expected, :word)

        # alive of counted: of this kind here; others: [alive, counted] of the same kind and season elsewhere, which go
        # into the planning value. Raises BadInput (field :alive).
        def self.survival(stock, alive:, counted:, others: [0, 0])
          unless alive.is_a?(Integer) && counted.is_a?(Integer) && alive.between?(0, counted)
            raise BadInput.new("The living are between 0 and those looked at.", field: :alive)
          end

          planned = Knowledge.shipped.stock.fetch(stock).fetch("survives")
          yes = (planned * WEIGHT) + alive + others[0]
          no = ((1 - planned) * WEIGHT) + counted - alive + others[1] - others[0]
          all, living = counted + others[1], alive + others[0]
          low, high = Interval.wilson(living, all) if all.positive?
          mean = yes / (yes + no)
          Survival.new(mean: low ? mean.clamp(low, high) : mean, low:, high:, counted: all,
                       source: all.positive? ? "own_records" : "memory")
        end

        # Plants to put in again, so that as many live as were planned to stand: those missing, over the share that
        # lives. planted, aim: counts; 0 where enough stand.
        def self.again(planted, survival, aim: 0.8)
          missing = (planted * aim) - (planted * survival.mean)
          missing.positive? ? (missing / survival.mean).ceil : 0
        end

        # How many plants to look at so that the share is right to ± error, of a number planted (Cochran 1977, with the
        # finite population correction). Raises BadInput (field :error).
        def self.enough(planted, error: 0.1, share: 0.5)
          raise BadInput.new("The error is above 0 and below 1.", field: :error) unless error.positive? && error < 1

          endless = (Z**2) * share * (1 - share) / (error**2)
          (endless / (1 + ((endless - 1) / planted.to_f))).ceil.clamp(1, planted)
        end

        # The Cover of frames of a percent each, and how many frames are enough for ± error (a share of ground);
        # kind, year: of knowledge/expect.yml. Raises BadInput (field :frames).
        def self.cover(frames, kind:, year:, error: 0.1)
          unless frames.any? && frames.all? { |percent| percent.is_a?(Numeric) && percent.between?(0, 100) }
            raise BadInput.new("Frames are percents from 0 to 100.", field: :frames)
          end

          shares = frames.map { |percent| percent / 100.0 }
          mean, spread = mean_and_spread(shares)
          off = Z * spread / Math.sqrt(shares.size)
          expected = expected(kind, year)
          Cover.new(mean:, low: [mean - off, 0].max, high: [mean + off, 1].min, frames: frames.size,
                    enough: [(Z * spread / error)**2, 3].max.ceil, expected:, word: word(mean, expected))
        end

        # The row of what to expect in a year after planting (from 1; the last stands for later ones).
        def self.expected(kind, year)
          rows = Knowledge.shipped.expect.fetch(kind)
          rows.find { |row| row["year"] == year } || rows.last
        end

        def self.mean_and_spread(shares)
          mean = shares.sum / shares.size
          return [mean, 0.25] if shares.size < 3 # too few to know: a wide guess (memory)

          [mean, Math.sqrt(shares.sum { |share| (share - mean)**2 } / (shares.size - 1))]
        end

        def self.word(mean, expected)
          low, _, high = expected["cover"]
          return :behind if mean < low

          mean > high ? :ahead : :expected
        end
        private_class_method :mean_and_spread, :word
      end
    end
  end
end
