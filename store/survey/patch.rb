# frozen_string_literal: true

module Thistle
  module Store
    # Model: a place where a plant stands, with all that was recorded of it. Its state follows from its records alone.
    class Patch < Sequel::Model(:patches)
      include PatchFacts
      include PatchStory

      plugin :optimistic_locking
      many_to_one :property, class: "Thistle::Store::Property"
      # What was taken back stays on record, and says nothing any more.
      one_to_many :observations, class: "Thistle::Store::Observation", order: %i[seen_on id],
                                 conditions: { deleted_at: nil }
      one_to_many :treatments, class: "Thistle::Store::Treatment", order: %i[done_on id],
                               conditions: { deleted_at: nil }
      one_to_many :checks, class: "Thistle::Store::Check", order: %i[checked_on id], eager: [:treatment],
                           conditions: { deleted_at: nil }
      one_to_many :tasks, class: "Thistle::Store::Task", order: :due_on
      one_to_many :reports, class: "Thistle::Store::Report", order: :id
      one_to_many :plantings, class: "Thistle::Store::Planting", order: :from_on, conditions: { deleted_at: nil }
      one_to_many :plans, class: "Thistle::Store::PlantingPlan", order: :id, eager: { plantings: :counts }
      one_to_many :courses, class: "Thistle::Store::Course", order: Sequel.desc(:id)
      one_to_many :past_shapes, class: "Thistle::Store::PatchShape", order: :from_on
      many_to_one :parent, class: "Thistle::Store::Patch"
      one_to_many :absorbed, class: "Thistle::Store::Patch", key: :merged_into_id

      WANTING = %w[reported standing regrowing].freeze # states in which work is wanted
      AGENDA = %i[id property_id code plant_key state gross_m2 water_m stems stem_size cover_class infested_m2 slope
                  natives_near cover_percent density_m2 stems_by_size plants slope_deg zones_near schools footing
                  aim group_key standing alive young first_counts seen_on parent_id parted_share].freeze

      # 1 where it was parted from another or took one in.
      PARTED = Sequel.lit(<<~SQL.squeeze(" ").strip)
        (parent_id IS NOT NULL OR EXISTS (SELECT 1 FROM patches m WHERE m.merged_into_id = patches.id))
      SQL
      LINEAGE = PARTED.as(:lineage)

      include Live

      dataset_module do
        def wanting_work = live.where(state: WANTING)

        # Only what an agenda looks at: the shape is most of a row, and dates are slow to read.
        def for_agenda = select(*AGENDA).select_append(LINEAGE)

        # With every record that an answer of it names: a query for each kind, however many there are.
        def for_answers = eager(:property, :observations, :treatments, :checks, :tasks, :past_shapes, :parent)

        # Patches whose extent meets [west, south, east, north], through the R*Tree.
        def within(bounds) = where(id: Extents.meeting(:patch_extents, bounds))
      end

      # Takes a shape and what follows from it alone: extent, length, gross area, a lighter outline for drawing.
      # What lies around it is settled after saving (Surroundings).
      def shape=(shape)
        set(self.class.measured(shape, width_m:, radius_m:))
      end

      # The columns that follow from a shape alone.
      def self.measured(shape, width_m: nil, radius_m: nil)
        many = shape.positions.size > MANY_CORNERS
        outline = many ? JSON.generate(Core::Survey::Overlay.drawn(shape, DRAWN_M).geometry) : nil
        { geometry: JSON.generate(shape.geometry), **extent(shape, width_m:, radius_m:),
          length_m: shape.kind == "line" ? shape.length : nil,
          gross_m2: shape.gross_area(width: width_m, radius: radius_m), outline: }
      end

      # Where all of it lies: {west:, south:, east:, north:}.
      def self.extent(shape, width_m: nil, radius_m: nil)
        %i[west south east north].zip(Core::Degrees.around(shape.bounds, radius_m || ((width_m || 0) / 2.0))).to_h
      end

      MANY_CORNERS, DRAWN_M = 120, 0.5 # corners from which a lighter outline is drawn, and how near it keeps, m

      def before_save
        @moved = new? || changed_columns.intersect?(%i[geometry width_m radius_m])
        @resized = !new? && changed_columns.intersect?(%i[width_m radius_m])
        @left = changed_columns.include?(:deleted_at)
        @met = new? ? [] : Overlaps.neighbours([id]) if @moved || @left
        self.shape_from ||= seen_on
        super
      end

      def after_save
        super
        Overlaps.settle(property, [id, *@met]) if @left
        return unless @moved

        past_shapes_dataset.each(&:measure) if @resized
        keep_place
        Overlaps.settle(property, [id, *@met])
        refresh
      end

      # Works out what its place says before it is saved, so that the file is not asked for until that is known.
      def place_first = @placed = Surroundings.new(property).of(shape, width_m:, radius_m:)

      def keep_place
        @placed ? Surroundings.write(id, *@placed) : Surroundings.settle(property, [id])
        @placed = nil
      end
      private :keep_place

      def shape = Core::Survey::Shape.stored(geometry)

      # The ground it covers as a Shape; nil for a point or line without a size.
      def ground
        Core::Survey::Overlay.ground(shape, width: width_m, radius: radius_m)
      rescue Core::Survey::Overlay::Tangled # a line from before there was a budget: it stands without a width
        nil
      end

      # The PatchShape that it had on a day; nil for the one that it has now.
      def shape_on(day) = past_shapes.find { |past| day >= past.from_on && day < past.to_on }

      # The ground that it covered on a day; where that had no size, as it is now.
      def ground_on(day) = shape_on(day)&.ground || ground

      # How much stands there, as last seen.
      def amount
        Core::Survey::Amount.new(gross_m2:, infested_m2:, cover_class:, cover_percent:, density_m2:, height_cm:, stage:,
                                 stems: stems_by_size ? JSON.parse(stems_by_size) : nil)
      end

      # Ground it touches or stands too near to: [Core::Survey::Nearby], or nil.
      def zones_in_reach
        zones_near && JSON.parse(zones_near, symbolize_names: true).map { |row| Core::Survey::Nearby.new(**row) }
      end

      # Extent over time: the shapes it had, then the one it has.
      def versions
        past = past_shapes.map do |s|
          Core::Survey::Growth::Version.new(from: s.from_on, to: s.to_on, gross_m2: s.gross_m2,
                                            infested_m2: s.infested_m2)
        end
        [*past, Core::Survey::Growth::Version.new(from: shape_from || seen_on, to: closed_on, gross_m2:,
                                                  infested_m2: infested&.first)]
      end

      def plant = plant_key && Core::Knowledge.shipped.plant(plant_key)
      def settled? = state != "reported"

      # The Core::Identify::Group that it is named as; nil where it is named as a plant or not at all.
      def group
        group_key && Core::Knowledge.shipped.groups[group_key]&.then { |found| found if found.include?(plant) }
      end

      # Hazards of what stands there: keys of knowledge/cautions.yml; of a group, of any of it.
      def hazards = group ? group.hazards(Core::Knowledge.shipped) : plant&.hazards.to_a

      def cover = cover_class && Core::Survey::Cover.class_of(cover_class)

      # [m², :measured or :estimated], or nil.
      def infested = amount.infested

      # The course that it is on, if any.
      def course = courses_dataset.live.first

      # Name, cover and amounts as its records say them.
      def figures = PatchFigures.new(self)

      def open_tasks = tasks.select(&:open?)

      # The last work that takes plants out: what a look looks at.
      def last_treatment = treatments.reverse.find { |treatment| treatment.removal.removes? }
    end
  end
end
