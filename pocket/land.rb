# frozen_string_literal: true

module Thistle
  module Pocket
    # The property that was taken along, as the benches ask it: what the server knew on the day.
    class Land
      attr_reader :units, :habits, :region, :today, :kept_facts, :rates, :site_then, :stock

      # told: what web/pocket/carried.rb wrote.
      def initialize(told)
        @told = told
        @units, @habits, @region, @today = told.values_at(:units, :habits, :region, :today)
        @kept_facts, @rates, @watch = told.values_at(:kept_facts, :rates, :watch)
        @patches = told[:patches].to_h { |id, row| [id, Ground.new(self, id, row)] }
      end

      def measures = Core::Units.new(units)
      def site(_today) = @told[:site]
      def watched?(plant) = @watch.include?(plant.key)
      def duties_of(plant) = @told[:duties].fetch(plant.key, [])

      def reports_first?(plant)
        plant.new_to?(region) || watched?(plant) || duties_of(plant).any? { |duty| duty.asked == :report }
      end

      def weeds = Core::Knowledge.shipped.plants.values.select { |plant| plant.weed_in?(region) }.sort_by(&:name)
      def kills = @told[:kills]
      def mapped = @told[:mapped]
      def in_use = @told[:in_use]
      def shelf = @told[:shelf]
      def calibrations = @calibrations ||= @told[:calibrations].transform_values { |row| Sprayer.new(*row.values) }
      Sprayer = Struct.new(:said, :done_on, :litres_per_100m2)
      def usage = @told[:usage]

      # The Ground of a patch; nil where it was not taken along.
      def patch(id) = @patches[id.to_i]

      # The patch that a bench opens with where none is named.
      def first_patch = @told[:first] && @patches[@told[:first]]

      def facts(plant, date, **more)
        Core::Decide::Facts.new(**kept_facts, plant:, date:, settled: true, slope: "flat",
                                              belongs: plant.belongs(region), kills: kills[plant.key], **more)
      end

      # What is mapped, asked as of a dataset.
      def live_patches = Mapped.new(mapped)

      # As much of a dataset as the identify bench asks.
      Mapped = Struct.new(:keys) do
        def unordered = self
        def exclude(*) = self
        def distinct = self
        def select_map(_column) = keys
      end
    end

    # A patch that was taken along.
    class Ground
      attr_reader :id, :code, :stem_size, :water_m, :property, :stands, :own_schools

      def initialize(land, id, row)
        @property, @id, @row = land, id, row
        @code, @stem_size, @water_m, @stands, @own_schools =
          row.values_at(:code, :stem_size, :water_m, :stands, :own_schools)
      end

      def plant = @row[:plant_key] && Core::Knowledge.shipped.plant(@row[:plant_key])

      def settled? = @row[:settled]
      def group = @row[:group] && Core::Knowledge.shipped.groups[@row[:group]]
      def hazards = group ? group.hazards(Core::Knowledge.shipped) : plant&.hazards.to_a
      def failed_twice = @row[:failed] && Core::Knowledge.shipped.removal(@row[:failed])

      # What is under way on it is told where there is signal.
      def course = nil

      # As the records said on the day on which it was taken along.
      def facts(today) = plant && Core::Decide::Facts.new(**@row[:facts], plant:, date: today)

      # What lies on its ground is reckoned with shapes: that waits for signal.
      def ground = nil
    end
  end

  # What the benches ask of the file, out of what was taken along.
  module Store
    # Products and sprayers.
    module Product
      def self.at_hand(id) = Pocket.land.shelf[id]&.then { |label| OnShelf.new(label) }
      OnShelf = Struct.new(:label) do
        def id = label.id
        def name = label.name
      end
    end

    # Sprayers that were measured.
    module Calibration
      def self.at_hand(id) = Pocket.land.calibrations[id]
    end

    # Products in use for a kind of work.
    module InUse
      def self.for(_land, use) = Pocket.land.in_use[use]&.then { |label| Product::OnShelf.new(label) }
    end

    # How much mix work took.
    module Usage
      def self.of(removal, size, **) = Pocket.land.usage[[removal.key, size]]
      def self.on_ground(removal, **) = Pocket.land.usage[[removal.key, nil]]
    end
  end
end
