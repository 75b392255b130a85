# frozen_string_literal: true

require "fiddle"

module Thistle
  module Core
    module Survey
      # Degrees to metres and back by a PROJ definition, many places in one call.
      class Projection
        FORWARD, INVERSE = 1, -1
        MOVE = Libproj[:proj_trans_generic]
        PAIR = 2 * Fiddle::SIZEOF_DOUBLE
        DEGREES = "+proj=pipeline +step +proj=unitconvert +xy_in=deg +xy_out=rad +step"

        def initialize(definition)
          @definition = "#{DEGREES} #{definition}"
        end

        # [[lon, lat]] to [[x, y]] in m.
        def forward(places) = moved(places, FORWARD)

        # [[x, y]] in m to [[lon, lat]].
        def inverse(points) = moved(points, INVERSE)

        private

        def moved(pairs, direction)
          numbers = pairs.flatten.pack("d*")
          first = Fiddle::Pointer[numbers].to_i
          count = pairs.size
          MOVE.call(transformer, direction, first, PAIR, count, first + Fiddle::SIZEOF_DOUBLE, PAIR, count, 0, 0, 0, 0, 0, 0)
          numbers.unpack("d*").each_slice(2).to_a
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
