# frozen_string_literal: true

require "fiddle"

module Thistle
  module Core
    module Survey
      # Degrees to metres and back by a PROJ definition, many places in one call.
      class Projection
        FORWARD, INVERSE = 1, -1
        MOVE = Libproj[:proj_trans_array]
        DEGREES = "+proj=pipeline +step +proj=unitconvert +xy_in=deg +xy_out=rad +step"

        def initialize(definition)
          @definition = "#{DEGREES} #{definition}"
        end

        # [[lon, lat]] to [[x, y]] in m.
        def forward(places) = moved(places, FORWARD)

        # [[x, y]] in m to [[lon, lat]].
        def inverse(points) = moved(points, INVERSE)

        private

        # libproj moves coordinates of four: x, y, height and time.
        def moved(pairs, direction)
          numbers = Array.new(4 * pairs.size, 0.0)
          pairs.each_with_index { |(x, y), n| numbers[4 * n], numbers[(4 * n) + 1] = x, y }
          bytes = numbers.pack("d*")
          MOVE.call(transformer, direction, pairs.size, Fiddle::Pointer[bytes].to_i)
          numbers = bytes.unpack("d*")
          Array.new(pairs.size) { |n| numbers[4 * n, 2] }
        end

        # PROJ's objects belong to the thread that made them.
        def transformer
          mine = Thread.current[:thistle_projections] ||= {}
          mine[@definition] ||= Libproj[:proj_create].call(Libproj[:proj_context_create].call, @definition).to_i
        end
      end
    end
  end
end
