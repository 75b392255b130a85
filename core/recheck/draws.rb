# frozen_string_literal: true

require "numo/narray"

module Thistle
  module Core
    module Recheck
      # Random numbers that are the same for the same seed, as arrays.
      module Draws
        TAIL = { "own_records" => Interval::Z }.freeze # the range of learned values is 95 %
        LEAST = 0.001 # of a share, and of one less it
        DRAWING = Mutex.new # Numo's generator is one for the process

        module_function

        # So many standard normals.
        def normal(seed, count)
          DRAWING.synchronize do
            Numo::NArray.srand(seed)
            Numo::DFloat.new(count).rand_norm
          end
        end

        # Values of a Stages::Spread, one for each of these normals: normal about the log odds of a share, about the log
        # of another number, with the likely value in the middle and each side as wide as it says.
        def of(name, range, normals)
          return Numo::DFloat.zeros(normals.size) + range.likely if range.high <= range.low || range.likely <= 0

          share = Stages::SHARES.include?(name)
          low, likely, high = [range.low, range.likely, range.high].map do |at|
            share ? odds(at) : Math.log([at, range.likely / 100.0].max)
          end
          above = Numo::DFloat.cast(normals.gt(0))
          width = (above * (high - likely)) + ((1 - above) * (likely - low))
          value = likely + (normals * width / TAIL.fetch(range.source, Normal::Z80))
          share ? 1 / (1 + Numo::NMath.exp(-value)) : Numo::NMath.exp(value)
        end

        def odds(share) = share.clamp(LEAST, 1 - LEAST).then { |at| Math.log(at / (1 - at)) }
        private_class_method :odds
      end
    end
  end
end
