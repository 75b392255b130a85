# frozen_string_literal: true

module Thistle
  module Core
    module Survey
      # A walk from position fixes: those too poor or too far off are dropped and said so, the rest is smoothed,
      # and a walk that comes back to its start is the edge of an area, with the uncertainty of that area.
      #
      # Smoothing is a constant-velocity Kalman filter run forward and back (Rauch, Tung and Striebel 1965,
      # recalled), each fix weighted by its own accuracy. Accuracy is the radius of 95 % confidence in m,
      # as the W3C Geolocation specification has it.
      class Track
        # time in seconds, rising; accuracy_m may be nil (not told).
        Fix = Value.define(:lon, :lat, :time, :accuracy_m)

        WORST_M = 20.0       # a fix known no better than this says little about an edge (memory)
        UNTOLD_M = 8.0       # taken when the receiver does not tell (memory: a phone under open sky)
        FASTEST_M_S = 8.0    # nobody walks an edge faster: a jump
        GAP_S = 120          # a pause longer than this is said
        RESTLESS = 0.35      # m s⁻², how hard a walker turns (memory)
        ALIKE_S = 30.0       # errors of fixes this near in time are alike (memory)
        RADIUS_TO_SIGMA = 2.4477 # 95 % radius of a round normal error in standard deviations a side
        FEWEST = 4
        MAX_FIXES = 20_000

        attr_reader :fixes, :notes, :dropped

        # fixes: [Fix] in any order. Raises BadInput when too few are left to make anything of.
        def initialize(fixes)
          refuse "The walk holds more than #{MAX_FIXES} fixes; record fewer a minute." if fixes.size > MAX_FIXES
          @notes, @dropped = [], 0
          @fixes = sift(fixes).freeze
          refuse ["Only #{@fixes.size} usable fixes: walk on for a while.", *notes].join(" ") if @fixes.size < 2
          @plane = Plane.around(@fixes.first.lon, @fixes.first.lat)
          @points = smooth
        end

        # Does it come back to its start, as near as its fixes can tell?
        def closed?
          return false if fixes.size < FEWEST

          @closed ||= apart(@points.first, @points.last) <= [2 * accuracy, 15.0].max &&
                      length > 3 * apart(@points.first, @points.last)
        end

        # The walk as a Shape: the edge of an area when it closes, else the line. Crossings are repaired.
        def shape = @shape ||= closed? ? area_shape : Shape.new({ "type" => "LineString", "coordinates" => places }, [])

        # The line walked, smoothed, whether it closes or not.
        def line = Shape.new({ "type" => "LineString", "coordinates" => places }, [])

        # m walked.
        def length = @length ||= Geodesic.length(places)

        # m², with its standard error; nil for a line.
        def area = closed? ? shape.area : nil

        # Standard error of the area in m²: dA = ½ Σ e·d, where d is the turned chord beside each corner; errors of
        # fixes within ALIKE_S seconds go together by exp(−Δt/ALIKE_S), so that a shifted walk costs nothing.
        def area_error(alike_s: ALIKE_S)
          return unless closed?

          chords = @points.each_index.map { |n| chord(n) }
          Math.sqrt(0.25 * @points.each_index.sum { |n| row(n, chords, alike_s) }.clamp(0, Float::INFINITY))
        end

        # Median accuracy of the fixes kept, m.
        def accuracy = @accuracy ||= radii.sort[radii.size / 2]
        def minutes = (fixes.last.time - fixes.first.time) / 60.0

        private

        def refuse(message) = raise(BadInput.new(message, field: :walk))
        def radii = @radii ||= fixes.map { |fix| fix.accuracy_m || UNTOLD_M }
        def apart(a, b) = Math.hypot(a[0] - b[0], a[1] - b[1])
        def places = @places ||= @points.map { |x, y| @plane.place(x, y).map { |n| n.round(8) } }

        def sift(fixes)
          known = kept(fixes, "without a place or a time of their own") do |all|
            all.select { |fix| placed?(fix) }.sort_by(&:time).uniq(&:time)
          end
          fair = kept(known, "known no better than #{WORST_M.to_i} m") do |all|
            all.reject { |fix| (fix.accuracy_m || 0) > WORST_M }
          end
          calm = kept(fair, "a jump faster than anyone walks") { |all| calm(all) }
          gaps = calm.each_cons(2).count { |a, b| b.time - a.time > GAP_S }
          if gaps.positive?
            notes << "The track has #{gaps} gaps of more than two minutes. A straight line bridges each gap."
          end
          calm
        end

        def placed?(fix) = fix.lon.between?(-180, 180) && fix.lat.between?(-90, 90) && fix.time

        # What is left without leaps. When the first fix was the leap, all the others would go: then it goes instead.
        def calm(fixes)
          left = without_leaps(fixes)
          left.size < fixes.size / 2 ? without_leaps(fixes.drop(1)) : left
        end

        def without_leaps(fixes)
          fixes.each_with_object([]) { |fix, kept| kept << fix if kept.empty? || reachable?(kept.last, fix) }
        end

        def kept(fixes, why)
          left = yield fixes
          left_out fixes.size - left.size, why
          left
        end

        def left_out(number, why)
          return if number.zero?

          @dropped += number
          notes << "#{number} #{number == 1 ? "fix was" : "fixes were"} dropped: #{why}."
        end

        # Could one have walked from one fix to the next, each within its accuracy?
        def reachable?(from, to)
          slack = [from, to].sum { |fix| fix.accuracy_m || UNTOLD_M }
          Geodesic.distance([from.lon, from.lat], [to.lon, to.lat]) <= ((to.time - from.time) * FASTEST_M_S) + slack
        end

        def smooth
          raw = fixes.map { |fix| @plane.point(fix.lon, fix.lat) }
          times, sigmas = fixes.map(&:time), radii.map { |radius| radius / RADIUS_TO_SIGMA }
          [0, 1].map { |axis| Smoother.new(times, raw.map { |p| p[axis] }, sigmas, RESTLESS).values }.transpose
        end

        def area_shape
          ring = [*places, places.first]
          Shape.new("type" => "Polygon", "coordinates" => [ring])
        rescue Shape::Crossed => e
          raise unless e.repaired

          notes << "The walk crosses itself; the ground inside the crossings is counted once."
          Shape.new(e.repaired)
        end

        # The chord past a corner, turned a quarter: what moving the corner does to twice the area.
        def chord(n)
          before, after = @points[n - 1], @points[(n + 1) % @points.size]
          [after[1] - before[1], before[0] - after[0]]
        end

        def row(n, chords, alike_s)
          [1, -1].sum do |step|
            total, m = 0.0, step == 1 ? n : n - 1
            while m.between?(0, @points.size - 1)
              alike = likeness(n, m, alike_s)
              break unless alike > 0.01

              total += alike * sigma(n) * sigma(m) * ((chords[n][0] * chords[m][0]) + (chords[n][1] * chords[m][1]))
              m += step
            end
            total
          end
        end

        def likeness(n, m, alike_s)
          return n == m ? 1.0 : 0.0 unless alike_s.positive?

          Math.exp(-(fixes[n].time - fixes[m].time).abs / alike_s)
        end

        def sigma(n) = radii[n] / RADIUS_TO_SIGMA
      end
    end
  end
end
