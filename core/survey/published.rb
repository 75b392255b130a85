# frozen_string_literal: true

module Thistle
  module Core
    module Survey
      # A geometry as RFC 7946 asks for it: outer rings counter-clockwise and holes clockwise (section 3.1.6),
      # closed, positions of two numbers at seven decimals (about a centimetre, section 11.2).
      module Published
        DECIMALS = 7

        module_function

        # The geometry as RFC 7946 wants it: rings wound right, positions rounded to centimetres.
        def geometry(geometry)
          rounded = rounded(geometry["coordinates"])
          wound = case geometry["type"]
                  when "Polygon" then wind(rounded)
                  when "MultiPolygon" then rounded.map { |rings| wind(rings) }
                  else rounded
                  end
          { "type" => geometry["type"], "coordinates" => wound }
        end

        def wind(rings)
          rings.each_with_index.map do |ring, n|
            closed = ring.first == ring.last ? ring : [*ring, ring.first]
            left_handed?(closed) == n.zero? ? closed : closed.reverse
          end
        end

        # Does the ring turn counter-clockwise, by its signed area in degrees?
        def left_handed?(ring)
          ring.each_cons(2).sum { |(x, y), (u, v)| ((x - ring[0][0]) * (v - y)) - ((u - x) * (y - ring[0][1])) }
              .positive?
        end

        def rounded(list)
          list.first.is_a?(Numeric) ? list[0, 2].map { |n| n.round(DECIMALS) } : list.map { |item| rounded(item) }
        end

        private_class_method :wind, :left_handed?, :rounded
      end
    end
  end
end
