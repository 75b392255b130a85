# frozen_string_literal: true

module Thistle
  module Core
    module Survey
      # The next scouting walk: places near what brings invaders in, that have gone longest unseen, as a round from
      # the way in. Worth of a place = how near it is to each way of spread × how long nobody looked.
      class Scouting
        # What draws: a label, how strongly it spreads (0 to 1), its Shape.
        Draw = Value.define(:label, :spreads, :shape)
        # Ground that was searched on a day.
        Seen = Value.define(:on, :ground)
        # A place on the walk: [lon, lat], why, when it was last seen (nil: never on record), its worth.
        Stop = Value.define(:place, :reasons, :last_seen, :worth, :leg_m)
        Route = Value.define(:stops, :length_m, :start, :working)

        REACH_M = 40.0      # a way of spread counts half as much at this distance (memory)
        FRESH_DAYS = 60     # seen within this time: no reason to go (memory)
        STALE_DAYS = 730    # two years unseen counts as never (memory)
        PLACES = 600        # places looked at
        APART_M = 60.0      # two stops nearer than this see the same ground
        REASON_M = 60.0

        # boundary: Shape or nil; draws: [Draw]; seen: [Seen]; start: [lon, lat] of the way in.
        def initialize(boundary:, draws:, seen:, start:, today:)
          @boundary, @draws, @seen, @start, @today = boundary, draws, seen.sort_by(&:on), start, today
          @plane = boundary.plane
        end

        # A round of at most `metres`, start and end at the way in. Nearest first, then untangled (2-opt).
        def route(metres)
          chosen = []
          ranked.each do |place|
            next if chosen.any? { |other| apart(place.xy, other.xy) < APART_M }

            tried = untangled(order([*chosen, place]))
            chosen = tried if round_length(tried) <= metres
          end
          route_along(untangled(order(chosen)), metres)
        end

        private

        Place = Struct.new(:xy, :worth, :last_seen)
        private_constant :Place

        def home = @home ||= @plane.point(*@start)
        def apart(a, b) = Math.hypot(a[0] - b[0], a[1] - b[1])

        def ranked
          places.map { |xy| weigh(xy) }.select { |place| place.worth.positive? }
                .sort_by { |place| [-place.worth, place.xy] }.first(120)
        end

        # A grid over the property, as fine as PLACES allows.
        def places
          area = @plane.feature(@boundary)
          box = area.envelope.exterior_ring.points
          (x0, x1), (y0, y1) = box.map(&:x).minmax, box.map(&:y).minmax
          step = [Math.sqrt(area.area / PLACES), 15.0].max
          area.prepare!
          grid(x0, x1, step).product(grid(y0, y1, step)).select { |xy| area.contains?(@plane.factory.point(*xy)) }
        end

        def grid(from, to, step) = (from + (step / 2)).step(to, step).to_a

        def weigh(xy)
          at = @plane.factory.point(*xy)
          seen = @seen.reverse.find { |search| search_covers?(search, at) }&.on
          stale = seen ? ((@today - seen - FRESH_DAYS).to_f / (STALE_DAYS - FRESH_DAYS)).clamp(0, 1) : 1.0
          Place.new(xy, stale.zero? ? 0 : stale * pull(at), seen)
        end

        # 0 where nothing that brings invaders in is near enough to be a reason.
        def pull(at)
          near = draw_groups.map { |spreads, feature| [spreads, feature.distance(at)] }
          near.any? { |_, m| m <= REASON_M } ? near.sum { |spreads, m| spreads * (0.5**(m / REACH_M)) } : 0
        end

        def search_covers?(search, at)
          @grounds ||= {}
          (@grounds[search] ||= @plane.feature(search.ground).tap(&:prepare!)).contains?(at)
        end

        # Ways of spread that are as strong as one another, as one feature: distance to the nearest of them.
        def draw_groups
          @draw_groups ||= @draws.group_by { |draw| [draw.label, draw.spreads] }.map do |(_, spreads), draws|
            [spreads, @plane.factory.collection(draws.map { |draw| @plane.feature(draw.shape) })]
          end
        end

        def order(places)
          left, path = places.dup, []
          here = home
          while left.any?
            nearest = left.min_by { |place| apart(place.xy, here) }
            path << left.delete(nearest)
            here = nearest.xy
          end
          path
        end

        # Turns a stretch round for as long as that makes the walk shorter.
        def untangled(path)
          loop do
            better = (0...path.size).to_a.combination(2).lazy.map do |i, j|
              turned(path, i, j)
            end.find { |p| round_length(p) < round_length(path) - 1e-6 }
            return path unless better

            path = better
          end
        end

        def turned(path, from, to) = [*path[0...from], *path[from..to].reverse, *path[(to + 1)..]]
        def round_length(path) = [home, *path.map(&:xy), home].each_cons(2).sum { |a, b| apart(a, b) }

        def route_along(path, metres)
          legs = [home, *path.map(&:xy), home].each_cons(2).map { |a, b| apart(a, b) }
          stops = path.zip(legs).map { |place, leg| stop(place, leg) }
          Route.new(stops: stops.freeze, length_m: path.empty? ? 0.0 : legs.sum, start: @start,
                    working: working(metres))
        end

        def stop(place, leg)
          at = @plane.factory.point(*place.xy)
          Stop.new(place: @plane.place(*place.xy), reasons: reasons(at), last_seen: place.last_seen, worth: place.worth,
                   leg_m: leg)
        end

        # The nearest of each way of spread, nearest first: [[label, m]].
        def reasons(at)
          nearest = @draws.group_by(&:label).transform_values do |draws|
            draws.map { |draw| @plane.feature(draw.shape).distance(at) }.min
          end
          nearest.select { |_, m| m <= REASON_M }.sort_by(&:last).first(3)
        end

        def working(metres)
          ["Each place on a grid is weighed: for every way of spread its strength, halved every #{REACH_M.to_i} m " \
           "away; times how long nobody looked there, from #{FRESH_DAYS} days (nothing) to two years or never (all). " \
           "The best are joined to the shortest round found that keeps within #{metres.round} m; straight lines " \
           "between stops, so the walk is longer on the ground."]
        end
      end
    end
  end
end
