# frozen_string_literal: true

module Thistle
  module Core
    module Work
      # Two people count the stems that they still see on the same ground, each alone, and mark them: how many likely
      # stand there that neither saw (Chapman 1951; range by the log-normal of what is unseen).
      class Recount
        Z = Normal::Z95

        # one, other: seen by each; both: seen by both. Raises BadInput (by field).
        def initialize(one:, other:, both:)
          { one:, other:, both: }.each do |field, count|
            refuse(field, "is a count, 0 or more") unless count.is_a?(Integer) && !count.negative?
          end
          { one:, other: }.each do |field, count|
            refuse(field, "saw none: from that nobody can say how many more there are") if count.zero?
          end
          refuse(:both, "is more than either of them saw") if both > [one, other].min
          @one, @other, @both = one, other, both
        end

        # All that likely stand there.
        def estimate = ((@one + 1.0) * (@other + 1) / (@both + 1)) - 1

        def seen = @one + @other - @both

        # Seen by neither, likely.
        def unseen = [estimate - seen, 0.0].max

        # [low, high] of that, 95 %.
        def range
          return [0.0, 0.0] unless unseen.positive?

          spread = Math.exp(Z * Math.sqrt(Math.log(1 + (variance / (unseen**2)))))
          [unseen / spread, unseen * spread]
        end

        # Of the estimate (Seber 1970, recalled).
        def variance
          (@one + 1.0) * (@other + 1) * (@one - @both) * (@other - @both) / (((@both + 1)**2) * (@both + 2))
        end

        private

        def refuse(field, message) = raise(BadInput.new(message, field:))
      end
    end
  end
end
