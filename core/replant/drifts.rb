# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # Whose ground is whose in a bed: Cells given to kinds by their share, in drifts, the low ones to the front where
      # somebody looks. Grasses, which hold a planting together, take what lies between.
      class Drifts
        TRIES = 12 # places tried for a drift; the one that suits best is taken
        LOOKED_AT = 25 # drifts of its like
        HEIGHT = 0.7 # of standing where its height belongs, against standing apart from its like
        SIZE = { true => 24, false => 9 }.freeze # plants of a drift, grassy or not (memory)

        # kinds: [Layout::Kind]; front: bearing from which it is looked at, or nil; seed: the same drifts every time.
        def initialize(cells, kinds, front: nil, seed: 1)
          @cells, @kinds, @front = cells, kinds, front
          @random = Random.new(seed)
        end

        # The number of a kind for each cell; nil outside the bed.
        def owners
          @owners = Array.new(@cells.size)
          @free = Array.new(@cells.size, false)
          @cells.inside.each { |cell| @free[cell] = true }
          @left = @cells.inside.shuffle(random: @random)
          order = @kinds.each_index.sort_by { |n| [@kinds[n].grassy ? 1 : 0, @kinds[n].share] }
          last = order.pop
          order.each { |n| spread(n, (@kinds[n].share * @cells.inside.size).round) }
          @cells.inside.each { |cell| @owners[cell] ||= last }
          @owners
        end

        private

        def spread(kind, count)
          size = [(SIZE[@kinds[kind].grassy] * (@kinds[kind].spacing**2) / (@cells.pitch**2)).round, 1].max
          middles = []
          while count.positive? && @left.any?
            middle = place(kind, middles) or return
            middles << [@cells.x(middle), @cells.y(middle)]
            count -= grow(middle, kind, [(size * @random.rand(0.6..1.5)).ceil, count].min)
          end
        end

        # A free cell, far from its like and where its height belongs; nil when none is free.
        def place(kind, middles)
          tried = Array.new(TRIES * 3) { @left[@random.rand(@left.size)] }.select { |cell| @free[cell] }.first(TRIES)
          tried = [next_free].compact if tried.empty?
          tried.max_by { |cell| apart(cell, middles) - (HEIGHT * misplaced(cell, kind)) }
        end

        def next_free
          @left.pop until @left.empty? || @free[@left.last]
          @left.last
        end

        # 0 beside its like (the last few of it), 1 as far as the bed is wide.
        def apart(cell, middles)
          return 1.0 if middles.empty?

          x, y = @cells.x(cell), @cells.y(cell)
          nearest = middles.last(LOOKED_AT).map { |ox, oy| ((ox - x)**2) + ((oy - y)**2) }.min
          Math.sqrt(nearest) / width
        end

        # How far from the front, against how far its height puts it.
        def misplaced(cell, kind) = @front ? (depth(cell) - rank[kind]).abs : 0.0

        # 0 at the front, 1 at the back.
        def depth(cell)
          nearest, farthest = @depths ||= @cells.inside.map { |one| behind(one) }.minmax
          (behind(cell) - nearest) / [farthest - nearest, 1e-9].max
        end

        def behind(cell)
          @sine ||= Math.sin(@front * Math::PI / 180)
          @cosine ||= Math.cos(@front * Math::PI / 180)
          -((@cells.x(cell) * @sine) + (@cells.y(cell) * @cosine))
        end

        # 0 the lowest, 1 the tallest.
        def rank
          @rank ||= begin
            order = @kinds.each_index.sort_by { |n| @kinds[n].height_cm }
            order.each_with_index.to_h { |kind, n| [kind, order.size > 1 ? n / (order.size - 1.0) : 0.5] }
          end
        end

        def width = @width ||= Math.sqrt(@cells.inside.size) * @cells.pitch

        # Takes free cells from a middle outwards; answers how many.
        def grow(middle, kind, count)
          queue, taken = [middle], 0
          @free[middle] = false
          while taken < count && queue.any?
            cell = queue.shift
            @owners[cell] = kind
            taken += 1
            @cells.each_beside(cell) do |other|
              next unless @free[other]

              @free[other] = false
              queue << other
            end
          end
          give_back(queue)
          taken
        end

        # Cells that were reached and not needed are free again.
        def give_back(queue)
          queue.each { |cell| @free[cell] = true }
          @left.concat(queue)
        end
      end
    end
  end
end
