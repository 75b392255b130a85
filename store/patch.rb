# frozen_string_literal: true

module Thistle
  module Store
    # A place where a plant stands, with all that was recorded of it. Its state follows from its records alone.
    class Patch < Sequel::Model(:patches)
      plugin :optimistic_locking
      many_to_one :property, class: "Thistle::Store::Property"
      one_to_many :observations, class: "Thistle::Store::Observation", order: :seen_on
      one_to_many :treatments, class: "Thistle::Store::Treatment", order: :done_on
      one_to_many :checks, class: "Thistle::Store::Check", order: :checked_on, eager: [:treatment]
      one_to_many :tasks, class: "Thistle::Store::Task", order: :due_on
      one_to_many :reports, class: "Thistle::Store::Report", order: :id
      one_to_many :plantings, class: "Thistle::Store::Planting", order: :from_on

      WANTING = %w[reported standing regrowing].freeze # states in which work is wanted
      AGENDA = %i[id property_id code plant_key state gross_m2 water_m stems stem_size cover_class infested_m2 slope natives_near].freeze

      dataset_module do
        def live = where(deleted_at: nil)
        def wanting_work = live.where(state: WANTING)

        # Only what an agenda looks at: the shape is most of a row, and dates are slow to read.
        def for_agenda = select(*AGENDA)

        # Patches whose extent meets [west, south, east, north], through the R*Tree.
        def within(bounds)
          west, south, east, north = bounds
          where(id: db[:patch_extents].where { (self.west <= east) & (self.east >= west) }
                                      .where { (self.south <= north) & (self.north >= south) }.select(:id))
        end
      end

      # GeoJSON FeatureCollection of a property's patches in view, encoded by SQLite.
      def self.features_json(property_id, bounds)
        west, south, east, north = bounds
        db.fetch(<<~SQL, property_id:, west:, south:, east:, north:).get
          SELECT json_object('type', 'FeatureCollection', 'features', json_group_array(json_object(
            'type', 'Feature', 'id', p.id, 'geometry', json(p.geometry),
            'properties', json_object('code', p.code, 'state', p.state, 'plant', p.plant_key, 'gross_m2', p.gross_m2))))
          FROM patch_extents e CROSS JOIN patches p ON p.id = e.id -- CROSS: the tree first, whatever the planner thinks
          WHERE e.west <= :east AND e.east >= :west AND e.south <= :north AND e.north >= :south
            AND p.property_id = :property_id AND p.deleted_at IS NULL
        SQL
      end

      # Takes a shape and what follows from it: extent, length, gross area, distance to water.
      def shape=(shape)
        self.geometry = JSON.generate(shape.geometry)
        self.west, self.south, self.east, self.north = shape.bounds
        self.length_m = shape.kind == "line" ? shape.length : nil
        self.gross_m2 = shape.gross_area(width: width_m, radius: radius_m)
        self.water_m = property.water_distance(shape)
      end

      def shape = Core::Survey::Shape.stored(geometry)
      def plant = plant_key && Core::Knowledge.shipped.plant(plant_key)
      def settled? = state != "reported"
      def cover = cover_class && Core::Survey::Cover.class_of(cover_class)

      # [m², :measured or :estimated], or nil.
      def infested
        return [infested_m2, :measured] if infested_m2

        estimate = Core::Survey::Cover.infested(gross_m2, cover_class)
        estimate && [estimate, :estimated]
      end

      # What the rules look at, before anyone pins anything. nil without a plant.
      def choices(today)
        plant && Core::Decide::Choices.new(
          plant:, settled: settled?, date: today, size: plant.woody? || plant.is?(:tussock) ? stem_size : "seedling",
          stance: property.stance, licensed: property.licensed, aquatic_label: property.aquatic_label, water_m:,
          slope:, natives_near:, cover: cover&.middle, freed_on:, stems:, area_m2: infested&.first || gross_m2,
          new_here: first?, reported: first? && !reports_dataset.empty?
        )
      end

      # Is it reported before anyone removes it?
      def first? = property.reports_first?(plant)

      # The story so far, as the state machine reads it.
      def life
        events = observations.map { |o| event(:observation, o.seen_on, settled: o.settled) } +
                 treatments.map { |t| event(:treatment, t.done_on, removes: t.removal.removes?) } +
                 checks.map { |c| event(:check, c.checked_on, live: c.live?) }
        Core::Recheck::PatchLife.new(events, seed_bank_years: plant&.seed_bank_years&.fetch("likely"))
      end

      # Sets the state that the records say. Call it after any record is added or taken away.
      def follow_records
        reload
        update(state: life.state)
      end

      # When the trees of a climber were last freed.
      def freed_on
        treatments.reverse.find { |t| t.removal.is?(:freeing) }&.done_on if plant&.is?(:climbing)
      end

      def open_tasks = tasks.select { |task| task.done_on.nil? }
      def last_treatment = treatments.last

      private

      def event(kind, on, **facts) = Core::Recheck::PatchLife::Event.new(kind:, on:, **facts)
    end
  end
end
