# frozen_string_literal: true

module Thistle
  module Store
    # Reading: what lies where, through the R*Trees of extents.
    module Extents
      module_function

      # Ids, as a query, of what in a tree (:patch_extents, :past_extents) meets [west, south, east, north].
      def meeting(tree, bounds)
        boxes = Core::Survey::Meridian.boxes(bounds).map do |west, south, east, north|
          (Sequel[:west] <= east) & (Sequel[:east] >= west) & (Sequel[:south] <= north) & (Sequel[:north] >= south)
        end
        Patch.db[tree].where(boxes.reduce(:|)).select(:id)
      end
    end
  end
end
