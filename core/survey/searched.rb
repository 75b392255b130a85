# frozen_string_literal: true

module Thistle
  module Core
    module Survey
      # Ground that was looked at: a track by the width that was in sight, or an area as drawn.
      module Searched
        SIGHT = (1.0..200.0)

        module_function

        # Shape of the ground seen from a line; half the sight, m, on each side. An area stands as it is. Raises
        # BadInput (field :sight) for a line without a sight that an eye can have.
        def ground(shape, sight_m: nil)
          return shape if shape.kind == "polygon"
          unless sight_m && SIGHT.cover?(sight_m)
            raise BadInput.new("Say how wide the eye reached: #{SIGHT.first.to_i} to #{SIGHT.last.to_i} m.",
                               field: :sight)
          end

          Overlay.buffer(shape, sight_m / 2.0)
        end

        FAIR = 2000 # corners of ground that a walk leaves

        # {searched m², unsearched Shape or nil, share 0 to 1, left_out: number} of an area, given the grounds searched.
        # Where they are too tangled to be put together, those of very many corners are left out.
        def cover(boundary, grounds)
          return { seen_m2: 0.0, share: 0.0, unseen: boundary, left_out: 0 } if grounds.empty?

          { **covered(boundary, grounds), left_out: 0 }
        rescue Overlay::Tangled
          fair = grounds.select { |ground| ground.positions.size <= FAIR }
          fair = [] if fair.size == grounds.size
          { **cover(boundary, fair), left_out: grounds.size - fair.size }
        end

        def covered(boundary, grounds)
          unseen = Overlay.difference(boundary, Overlay.union(grounds))
          # Laid out on the plane and back, ground that nobody touched may have grown by a hair.
          left = [unseen&.area || 0.0, boundary.area].min
          { seen_m2: boundary.area - left, share: 1 - (left / boundary.area), unseen: }
        end
        private_class_method :covered
      end
    end
  end
end
