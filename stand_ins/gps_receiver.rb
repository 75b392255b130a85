# frozen_string_literal: true

module Thistle
  module StandIns
    # A receiver that walks along a line and is never quite right: fixes a second apart that drift, now and then a poor
    # one, and one leap. The same seed walks the same walk.
    class GpsReceiver
      PACE_M_S = 1.2
      DRIFT_M = 1.6    # how far its error wanders, standard deviation a side
      SLOW_S = 25.0    # how slowly it does
      JITTER_M = 0.4

      def initialize(seed:)
        @random = Random.new(seed)
      end

      # [Core::Survey::Track::Fix] along a Shape's outline or line, from `start` (Time), a fix every `every` seconds.
      def walk(shape, start:, every: 2.0)
        plane = shape.plane
        path = path(shape).map { |lon, lat| plane.point(lon, lat) }
        error = [gauss * DRIFT_M, gauss * DRIFT_M]
        fixes = along(path, PACE_M_S * every).each_with_index.map do |(x, y), n|
          error = error.map { |e| wander(e, every) }
          fix(plane, x + error[0] + (gauss * JITTER_M), y + error[1] + (gauss * JITTER_M), start.to_f + (n * every), n)
        end
        leap(fixes, plane)
      end

      private

      def path(shape)
        return shape.parts.first.first if shape.kind == "polygon"

        shape.geometry["coordinates"]
      end

      # Points a step apart along a path.
      def along(path, step)
        left, points = 0.0, [path.first]
        path.each_cons(2) do |(x, y), (u, v)|
          length = Math.hypot(u - x, v - y)
          at = step - left
          while at <= length
            points << [x + ((u - x) * at / length), y + ((v - y) * at / length)]
            at += step
          end
          left = length - (at - step)
        end
        points << path.last
      end

      # An error that forgets itself slowly (first-order Gauss-Markov).
      def wander(error, every)
        keeps = Math.exp(-every / SLOW_S)
        (error * keeps) + (gauss * DRIFT_M * Math.sqrt(1 - (keeps**2)))
      end

      # Every fortieth fix is poor, and says so.
      def fix(plane, x, y, time, number)
        poor = number % 40 == 25
        x, y = x + (gauss * 15), y + (gauss * 15) if poor
        lon, lat = plane.place(x, y)
        Core::Survey::Track::Fix.new(lon:, lat:, time:, accuracy_m: poor ? 35.0 : 4.5)
      end

      def leap(fixes, plane)
        at = fixes.size * 2 / 3
        x, y = plane.point(fixes[at].lon, fixes[at].lat)
        lon, lat = plane.place(x + 90, y + 60)
        fixes.each_with_index.map { |fix, n| n == at ? fix.with(lon:, lat:) : fix }
      end

      # A normal variate (Box and Muller 1958, recalled).
      def gauss = Core::Normal.draw(@random)
    end
  end
end
