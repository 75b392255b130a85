# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # A Beta(a, b) distribution: mean and quantiles, by the continued fraction of the incomplete beta
      # function and bisection.
      class Beta
        def initialize(a, b)
          @a, @b = a.to_f, b.to_f
        end

        def mean = @a / (@a + @b)

        # How likely x is, against its neighbours; 0 outside 0 to 1.
        def density(x)
          return 0.0 unless x.positive? && x < 1

          log = Math.lgamma(@a + @b)[0] - Math.lgamma(@a)[0] - Math.lgamma(@b)[0]
          Math.exp(log + ((@a - 1) * Math.log(x)) + ((@b - 1) * Math.log(1 - x)))
        end

        # x with P(X <= x) = share: Newton's steps, halved where one would leave what is left.
        def quantile(share)
          low, high, x = 0.0, 1.0, near(share)
          60.times do
            off = cumulative(x) - share
            off.positive? ? high = x : low = x
            to = x - (off / density(x))
            to = (low + high) / 2 unless to > low && to < high
            return to if (to - x).abs < 1e-12

            x = to
          end
          x
        end

        # Where to begin: as if it were normal, and that logistic.
        def near(share)
          return mean unless share.between?(1e-6, 1 - 1e-6)

          deviation = Math.sqrt(mean * (1 - mean) / (@a + @b + 1))
          (mean + (deviation * Math.log(share / (1 - share)) / 1.702)).clamp(mean / 10, 1 - ((1 - mean) / 10))
        end

        # The regularised incomplete beta function at x, 0 to 1, by a continued fraction (Lentz).
        def cumulative(x)
          return x.clamp(0.0, 1.0) unless x.between?(Float::MIN, 1 - Float::EPSILON)
          return 1 - self.class.new(@b, @a).cumulative(1 - x) if x > (@a + 1) / (@a + @b + 2)

          log_front = Math.lgamma(@a + @b)[0] - Math.lgamma(@a)[0] - Math.lgamma(@b)[0] +
                      (@a * Math.log(x)) + (@b * Math.log(1 - x))
          Math.exp(log_front) * fraction(x) / @a
        end

        private

        # Lentz's method.
        def fraction(x)
          c = 1.0
          d = 1 / (1 - ((@a + @b) * x / (@a + 1)))
          value = d
          (1..300).each do |m|
            [even(m, x), odd(m, x)].each do |step|
              d = 1 / (1 + (step * d))
              c = 1 + (step / c)
              value *= c * d
            end
            break if ((c * d) - 1).abs < 1e-14
          end
          value
        end

        def even(m, x) = m * (@b - m) * x / ((@a + (2 * m) - 1) * (@a + (2 * m)))
        def odd(m, x) = -(@a + m) * (@a + @b + m) * x / ((@a + (2 * m)) * (@a + (2 * m) + 1))
      end
    end
  end
end
