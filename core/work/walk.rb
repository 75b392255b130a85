# frozen_string_literal: true

module Thistle
  module Core
    module Work
      # The order in which places are walked, from the car and back to it: the shortest way that leaves some places
      # (plants in seed) to the end. Exact up to nine, else bettered from many starts.
      class Walk
        # at: [x, y] in metres; late: after all that are not.
        Place = Value.define(:id, :at, :late)
        EXACT = 9
        TRIES = 24 # shaken and bettered again

        # home: [x, y]; back: does the way lead back to it?
        def initialize(home, places, back: true)
          @home, @places, @back = home, places, back
          points = [home, *places.map(&:at)]
          @apart = points.map { |a| points.map { |b| Math.hypot(a[0] - b[0], a[1] - b[1]) } }
          @apart = @apart.map { |row| [0.0, *row.drop(1)] }.tap { |rows| rows[0] = @apart[0] } unless back
        end

        # [Place] in order.
        def order = @order ||= path.map { |n| @places[n - 1] }
        def metres = length(path)

        private

        def path = @path ||= @places.size <= EXACT ? exact : bettered
        def late?(n) = @places[n - 1].late ? true : false
        def length(path) = path.empty? ? 0.0 : [0, *path, 0].each_cons(2).sum { |a, b| @apart[a][b] }

        # Over subsets, by which place came last (Held and Karp 1962).
        def exact
          return [] if @places.empty?

          numbers = (1..@places.size).to_a
          best = numbers.select { |n| first?(n) }.to_h { |n| [[1 << n, n], [@apart[0][n], [n]]] }
          (@places.size - 1).times { best = longer(best, numbers) }
          best.min_by { |(_, last), (metres, _)| metres + @apart[last][0] }.last.last
        end

        def longer(best, numbers)
          best.each_with_object({}) do |((set, last), (metres, path)), found|
            numbers.each do |n|
              next if set[n] == 1 || (late?(last) && !late?(n)) || (late?(n) && early_left?(set))

              key, length = [set | (1 << n), n], metres + @apart[last][n]
              found[key] = [length, [*path, n]] unless found.key?(key) && found[key].first <= length
            end
          end
        end

        def first?(n) = !late?(n) || @places.all?(&:late)
        def early_left?(set) = (1..@places.size).any? { |n| set[n].zero? && !late?(n) }

        def bettered
          random = Random.new(1)
          best = better(greedy)
          TRIES.times do
            other = better(shaken(best, random))
            best = other if length(other) < length(best) - 1e-9
          end
          best
        end

        # The nearest next, those that are late after the rest.
        def greedy
          here = 0
          (1..@places.size).partition { |n| !late?(n) }.flat_map do |left|
            Array.new(left.size) do
              here = left.min_by { |n| @apart[here][n] }
              left.delete(here)
            end
          end
        end

        # Turns stretches round and moves places elsewhere for as long as that shortens it.
        def better(path)
          while (shorter = turned(path) || moved(path))
            path = shorter
          end
          path
        end

        def turned(path)
          all = [0, *path, 0]
          (1..path.size).each do |i|
            ((i + 1)..path.size).each do |j|
              gain = @apart[all[i - 1]][all[i]] + @apart[all[j]][all[j + 1]] -
                     @apart[all[i - 1]][all[j]] - @apart[all[i]][all[j + 1]]
              next if gain < 1e-9 || late?(all[i]) != late?(all[j])

              return [*path[0...(i - 1)], *path[(i - 1)..(j - 1)].reverse, *path[j..]]
            end
          end
          nil
        end

        # One to three places in a row, elsewhere.
        def moved(path)
          (1..3).each do |size|
            (0..(path.size - size)).each do |from|
              some, rest = path[from, size], path[0...from] + path[(from + size)..]
              next if late?(some.first) != late?(some.last)

              saved = cost(path, from, size)
              (0..rest.size).each do |to|
                next if to == from || !fits?(rest, to, late?(some.first))

                return [*rest[0...to], *some, *rest[to..]] if saved - added(rest, to, some) > 1e-9
              end
            end
          end
          nil
        end

        def at(path, n) = n.between?(0, path.size - 1) ? path[n] : 0

        def cost(path, from, size)
          before, after = at(path, from - 1), at(path, from + size)
          @apart[before][path[from]] + @apart[path[from + size - 1]][after] - @apart[before][after]
        end

        def added(rest, to, some)
          before, after = at(rest, to - 1), at(rest, to)
          @apart[before][some.first] + @apart[some.last][after] - @apart[before][after]
        end

        # Does a place that is late, or not, belong there?
        def fits?(rest, to, late)
          turn = rest.index { |n| late?(n) } || rest.size
          late ? to >= turn : to <= turn
        end

        # Two stretches of what is not late, or of what is, change places.
        def shaken(path, random)
          turn = path.index { |n| late?(n) } || path.size
          from, to = [[0, turn], [turn, path.size]].max_by { |a, b| b - a }
          return path if to - from < 4

          a, b, c = Array.new(3) { from + 1 + random.rand(to - from - 1) }.sort
          [*path[0...a], *path[b...c], *path[a...b], *path[c..]]
        end
      end
    end
  end
end
