# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # Where each plant of a mix stands in a Bed: each kind on a lattice of its own spacing in its drifts, no plant too
      # near another.
      class Layout
        # share: of the ground, 0..1; spacing: m, from its like.
        Kind = Value.define(:key, :share, :spacing, :height_cm, :grassy)
        CELLS = 9_000 # at most, that the ground is divided into
        MOST = 20_000 # plants that are drawn one by one
        TIGHT = 0.6 # of the mean of their spacings, that two of different kinds keep between them (memory)

        attr_reader :bed, :kinds

        # grid: "triangular" or "square"; front: bearing in degrees from which it is looked at, or nil. Raises BadInput
        # (field :spacing or :area).
        def initialize(bed, kinds, grid: "triangular", front: nil, seed: 1)
          @bed, @grid, @front, @seed = bed, grid, front, seed
          total = kinds.sum(&:share)
          @kinds = kinds.map { |kind| kind.with(share: kind.share / total) }
          check
        end

        # [[x, y, number of its kind]], in the order of the rows.
        def plants
          @plants ||= begin
            @near, @stood = {}, Array.new(@kinds.size, 0)
            @cell = @kinds.map(&:spacing).max
            wide = @kinds.each_index.sort_by { |n| -@kinds[n].spacing }
            wide.each { |n| stand(n) }
            wide.each { |n| fill(n) }
            @near.values.flatten(1).sort_by! { |x, y, _| [y, x] }.freeze
          end
        end

        # How many of a kind belong on its share of the ground.
        def wanted(number)
          kind = @kinds[number]
          ground = free_area * kind.share
          (ground / (PlantingRate::GRIDS.fetch(@grid) * (kind.spacing**2))).round
        end

        private

        def check
          raise BadInput.new("There is nothing to plant.", field: :area) if @kinds.empty?

          west, south, east, north = @bed.box
          wide = @kinds.map(&:spacing).min
          if wide > [east - west, north - south].max
            raise BadInput.new("The spacing is wider than the bed.", field: :spacing)
          end

          many = @kinds.each_index.sum { |n| wanted(n) }
          return if many <= MOST

          raise BadInput.new("#{many} plants are too many to draw one by one: draw a part of the ground.", field: :area)
        end

        # Less what stands there.
        def free_area
          @free_area ||= begin
            trees = @bed.standing.select { |one| @bed.include?(one.x, one.y + one.r + Bed::EDGE) }
            [@bed.area - trees.sum { |one| Math::PI * (one.r**2) }, 0.0].max
          end
        end

        def cells = @cells ||= Cells.new(@bed, [@kinds.map(&:spacing).min, Math.sqrt(@bed.area / CELLS)].max)

        # Whose ground each cell is.
        def owners
          @owners ||= Drifts.new(cells, @kinds, front: @front, seed: @seed).owners
        end

        def alone? = @kinds.size == 1

        # A kind on the lattice of its spacing, where the ground is its own. Kinds of one spacing share theirs, so that
        # nothing is lost where they meet.
        def stand(number)
          phase = @kinds.map(&:spacing).uniq.index(@kinds[number].spacing) * 0.37 % 1
          @bed.lattice(@kinds[number].spacing, grid: @grid, phase:).each do |x, y|
            put(x, y, number) if alone? || (owners[cells.at(x, y)] == number && room?(x, y, number))
          end
        end

        # Up to what belongs there, in what room is left on its ground.
        def fill(number)
          return if alone?

          short = wanted(number) - @stood[number]
          cells.inside.each do |cell|
            break unless short.positive?
            next unless owners[cell] == number

            x, y = cells.x(cell), cells.y(cell)
            next unless room?(x, y, number)

            put(x, y, number)
            short -= 1
          end
        end

        def put(x, y, number)
          (@near[box(x, y)] ||= []) << [x, y, number]
          @stood[number] += 1
        end

        WIDE = 1_000_000
        def box(x, y) = ((x / @cell).floor * WIDE) + (y / @cell).floor

        BESIDE = [-1, 0, 1].product([-1, 0, 1]).map { |dx, dy| (dx * WIDE) + dy }.freeze
        private_constant :WIDE, :BESIDE

        def room?(x, y, number)
          here, kept = box(x, y), keep[number]
          BESIDE.each do |step|
            @near[here + step]&.each do |ox, oy, other|
              return false if ((ox - x)**2) + ((oy - y)**2) < kept[other]
            end
          end
          true
        end

        # The square of what two keep between them.
        def keep
          @keep ||= @kinds.map do |a|
            @kinds.map { |b| (a.equal?(b) ? a.spacing * 0.999 : TIGHT * (a.spacing + b.spacing) / 2)**2 }
          end
        end
      end
    end
  end
end
