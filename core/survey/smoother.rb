# frozen_string_literal: true

module Thistle
  module Core
    module Survey
      # One axis of a walk, smoothed: a Kalman filter for a point that moves steadily and is pushed about by white
      # acceleration, then the Rauch-Tung-Striebel pass backward (1965, recalled).
      class Smoother
        # times s, seen m, sigmas m (standard deviation of each sight), push m s⁻².
        def initialize(times, seen, sigmas, push)
          @times, @seen, @sigmas, @push = times, seen, sigmas, push
        end

        # Positions in m, one for each sight.
        def values
          forward
          back = @states.last
          smoothed = [back[0]]
          (@states.size - 2).downto(0) do |n|
            back = step_back(n, back)
            smoothed << back[0]
          end
          smoothed.reverse
        end

        private

        # States are [x, v]; covariances [xx, xv, vv].
        def forward
          state, cov = [@seen.first, 0.0], [@sigmas.first**2, 0.0, 4.0]
          @states, @covs, @ahead = [state], [cov], []
          (1...@seen.size).each do |n|
            state, cov = ahead(state, cov, @times[n] - @times[n - 1])
            @ahead << [state, cov]
            state, cov = correct(state, cov, @seen[n], @sigmas[n]**2)
            @states << state
            @covs << cov
          end
        end

        def ahead((x, v), (xx, xv, vv), dt)
          q = @push**2
          [[x + (v * dt), v],
           [xx + (2 * dt * xv) + (dt * dt * vv) + (q * (dt**3) / 3), xv + (dt * vv) + (q * dt * dt / 2), vv + (q * dt)]]
        end

        def correct((x, v), (xx, xv, vv), seen, noise)
          gain_x, gain_v = xx / (xx + noise), xv / (xx + noise)
          miss = seen - x
          [[x + (gain_x * miss), v + (gain_v * miss)], [(1 - gain_x) * xx, (1 - gain_x) * xv, vv - (gain_v * xv)]]
        end

        # Gain: the covariance with the next state, times the inverse of what was foreseen of it; then the miss,
        # weighted.
        def step_back(n, later)
          state, (xx, xv, vv) = @states[n], @covs[n]
          foreseen, cov = @ahead[n]
          dt = @times[n + 1] - @times[n]
          push = solved(cov, later[0] - foreseen[0], later[1] - foreseen[1])
          [state[0] + ((xx + (dt * xv)) * push[0]) + (xv * push[1]),
           state[1] + ((xv + (dt * vv)) * push[0]) + (vv * push[1])]
        end

        # The 2 × 2 system cov · push = miss.
        def solved((xx, xv, vv), x, v)
          det = (xx * vv) - (xv * xv)
          [((vv * x) - (xv * v)) / det, ((xx * v) - (xv * x)) / det]
        end
      end
    end
  end
end
