# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # Hopkins' bioclimatic law (1918, recalled): spring comes 4 days later for each degree of latitude poleward, each
      # 5 degrees of longitude eastward (in North America), and each 400 ft upward; autumn comes that much earlier.
      module Hopkins
        module_function

        DAYS = 4.0
        LONGITUDE_STEP = 5.0
        CLIMB_M = 121.92 # 400 ft
        NORTH_AMERICA = { longitude: -170.0..-50.0, latitude: 15.0..75.0 }.freeze

        # [[cause, days]] by which spring is later at `to` than at `from` (latitude, longitude, elevation; nil: not
        # known).
        def parts(from, to)
          poleward = to.latitude.abs - from.latitude.abs
          parts = [["latitude", DAYS * poleward]]
          if [from, to].all? { |place| american?(place) }
            parts << ["longitude", DAYS * (to.longitude - from.longitude) / LONGITUDE_STEP]
          end
          parts << ["elevation", DAYS * (to.elevation - from.elevation) / CLIMB_M] if from.elevation && to.elevation
          parts
        end

        def days(from, to) = parts(from, to).sum(&:last)

        def american?(place) = place.longitude && NORTH_AMERICA.all? { |axis, range| range.cover?(place[axis]) }
      end
    end
  end
end
