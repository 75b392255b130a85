# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # What people saw at a place, which goes before what was worked out: marks of the year, phases of plants, the feel
      # of the soil. anchors: [Mark]; phases: [Phase]; soils: {date => class}.
      Seen = Value.define(:anchors, :phases, :soils) do
        def anchor(key, year) = anchors.reverse.find { |mark| mark.key == key && year.cover?(mark.on) }
        def of(plant) = phases.select { |phase| phase.plant == plant.key }
      end

      class Seen
        Mark = Value.define(:key, :on, :by)
        # began: it was first seen that day, not only still so.
        Phase = Value.define(:plant, :phase, :on, :by, :began)
        NONE = new(anchors: [].freeze, phases: [].freeze, soils: {}.freeze)
      end
    end
  end
end
