# frozen_string_literal: true

module Thistle
  module Store
    # Model: a place where a plant stands, with all that was recorded of it. Its state follows from its records alone.
    class Patch < Sequel::Model(:patches)
      plugin :optimistic_locking
      many_to_one :property, class: "Thistle::Store::Property"
      # What was taken back stays on record, and says nothing any more.
      one_to_many :observations, class: "Thistle::Store::Observation", order: %i[seen_on id], conditions: { deleted_at: nil }
      one_to_many :treatments, class: "Thistle::Store::Treatment", order: %i[done_on id], conditions: { deleted_at: nil }
      one_to_many :checks, class: "Thistle::Store::Check", order: %i[checked_on id], eager: [:treatment], conditions: { deleted_at: nil }
      one_to_many :tasks, class: "Thistle::Store::Task", order: :due_on
      one_to_many :reports, class: "Thistle::Store::Report", order: :id
      one_to_many :plantings, class: "Thistle::Store::Planting", order: :from_on, conditions: { deleted_at: nil }
      one_to_many :courses, class: "Thistle::Store::Course", order: Sequel.desc(:id)
      one_to_many :past_shapes, class: "Thistle::Store::PatchShape", order: :from_on
      many_to_one :parent, class: "Thistle::Store::Patch"
      one_to_many :absorbed, class: "Thistle::Store::Patch", key: :merged_into_id

      SHOWING = %i[emerging leaf budding flower green_seed].freeze # phases in which what lives is up
      SHOWS_WITHIN = 14 # days by which a year, or one's own ground, may differ (memory)
      WANTING = %w[reported standing regrowing].freeze # states in which work is wanted
      AGENDA = %i[id property_id code plant_key state gross_m2 water_m stems stem_size cover_class infested_m2 slope natives_near
                  cover_percent density_m2 stems_by_size plants slope_deg zones_near schools footing aim].freeze

      # 1 where it was parted from another or took one in.
      LINEAGE = Sequel.lit("(parent_id IS NOT NULL OR EXISTS (SELECT 1 FROM patches m WHERE m.merged_into_id = patches.id))").as(:lineage)

      dataset_module do
        def live = where(deleted_at: nil)
        def wanting_work = live.where(state: WANTING)

        # Only what an agenda looks at: the shape is most of a row, and dates are slow to read.
        def for_agenda = select(*AGENDA).select_append(LINEAGE)

        # With every record that an answer of it names: a query for each kind, however many there are.
        def for_answers = eager(:observations, :treatments, :checks, :tasks, :past_shapes, :parent)

        # Patches whose extent meets [west, south, east, north], through the R*Tree.
        def within(bounds)
          boxes = Core::Survey::Meridian.boxes(bounds).map do |west, south, east, north|
            (Sequel[:west] <= east) & (Sequel[:east] >= west) & (Sequel[:south] <= north) & (Sequel[:north] >= south)
          end
          where(id: db[:patch_extents].where(boxes.reduce(:|)).select(:id))
        end
      end

      # Takes a shape and what follows from it alone: extent, length, gross area, a lighter outline for drawing.
      # What lies around it is settled after saving (Surroundings).
      def shape=(shape)
        set(self.class.measured(shape, width_m:, radius_m:))
      end

      # The columns that follow from a shape alone.
      def self.measured(shape, width_m: nil, radius_m: nil)
        west, south, east, north = padded(shape.bounds, radius_m || ((width_m || 0) / 2.0))
        outline = shape.positions.size > MANY_CORNERS ? JSON.generate(Core::Survey::Overlay.drawn(shape, DRAWN_M).geometry) : nil
        { geometry: JSON.generate(shape.geometry), west:, south:, east:, north:, length_m: shape.kind == "line" ? shape.length : nil,
          gross_m2: shape.gross_area(width: width_m, radius: radius_m), outline: }
      end

      # Room for the ground of a point or a line.
      def self.padded((west, south, east, north), metres)
        pad = metres / 111_000.0
        wide = pad / Math.cos(north * Math::PI / 180).abs.clamp(0.01, 1)
        [west - wide, south - pad, east + wide, north + pad]
      end
      private_class_method :padded

      MANY_CORNERS, DRAWN_M = 120, 0.5 # corners from which a lighter outline is drawn, and how near it keeps, m

      def before_save
        @moved = new? || changed_columns.intersect?(%i[geometry width_m radius_m])
        @left = changed_columns.include?(:deleted_at)
        @met = new? ? [] : Overlaps.neighbours([id]) if @moved || @left
        self.shape_from ||= seen_on
        super
      end

      def after_save
        super
        Overlaps.settle(property, [id, *@met]) if @left
        return unless @moved

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
      def ground = Core::Survey::Overlay.ground(shape, width: width_m, radius: radius_m)

      # How much stands there, as last seen.
      def amount
        Core::Survey::Amount.new(gross_m2:, infested_m2:, cover_class:, cover_percent:, density_m2:, height_cm:, stage:,
                                 stems: stems_by_size ? JSON.parse(stems_by_size) : nil)
      end

      # Ground it touches or stands too near to: [Core::Survey::Nearby], or nil.
      def zones_in_reach = zones_near && JSON.parse(zones_near, symbolize_names: true).map { |row| Core::Survey::Nearby.new(**row) }

      # The steeper of what a person said and what the grid measures.
      def lie
        measured = slope_deg && Core::Survey::Elevation::Lie.new(slope: slope_deg).kind
        mapped = "steep" if zones_in_reach&.any? { |zone| zone.kind == "steep" && zone.touches? }
        [slope, measured, mapped].compact.max_by { |kind| Core::Decide::Facts::SLOPES.index(kind) }
      end

      # Extent over time: the shapes it had, then the one it has.
      def versions
        past = past_shapes.map { |s| Core::Survey::Growth::Version.new(from: s.from_on, to: s.to_on, gross_m2: s.gross_m2, infested_m2: s.infested_m2) }
        [*past, Core::Survey::Growth::Version.new(from: shape_from || seen_on, to: closed_on, gross_m2:, infested_m2: infested&.first)]
      end

      def plant = plant_key && Core::Knowledge.shipped.plant(plant_key)
      def settled? = state != "reported"
      def cover = cover_class && Core::Survey::Cover.class_of(cover_class)

      # [m², :measured or :estimated], or nil.
      def infested = amount.infested

      # The course that it is on, if any.
      def course = courses_dataset.live.first

      # Was something planted here in the last years, so that only hands may weed? nil for not that anyone wrote down.
      def planted_young?(today) = plantings.any? { |planting| planting.from_on.between?(today - YOUNG, today) } || nil
      YOUNG = 3 * 365 # days (memory)

      # The stance on herbicide that this patch keeps, where it differs from the property's.
      def own_stance = schools == "{}" ? nil : own_schools["herbicide"]

      # The school that counts for each question: this patch's, the property's, the default.
      def school_answers
        schools == "{}" ? property.schools_kept : Core::Decide::School.settle(JSON.parse(schools, symbolize_names: true), property.school_answers)
      end

      # Where it differs from the property: {question => option}.
      def own_schools = JSON.parse(schools)

      # What the rules look at, before anyone pins anything. nil without a plant.
      def facts(today)
        return unless plant

        seen = amount
        Core::Decide::Facts.new(
          **kept_here, plant:, settled: settled?, date: today, size: plant.woody? || plant.is?(:tussock) ? stem_size : "seedling",
                       sizes: seen.stems, stems:, plants:, few: Core::Decide::Facts.few?(plants, stems), area_m2: seen.infested&.first || gross_m2,
                       cover: seen.cover, freed_on:, water_m:, slope: lie, natives_near:, zones: zones_in_reach, footing:, aim:,
                       new_planting: planted_young?(today), new_here: first?, belongs: plant.belongs(property.region),
                       reported: first? && !reports_dataset.empty?
        )
      end

      # What the property, or this patch before it, keeps: stance, schools, rules, labels, what work costs.
      def kept_here
        schools == "{}" ? property.kept_facts : property.kept_facts.merge(stance: own_stance || property.stance, schools: school_answers)
      end

      # Is it reported before anyone removes it?
      def first? = property.reports_first?(plant)

      # Its records as core reads them.
      def story = history.map { |on, kind, record| Core::Recheck::Story::Record.new(kind:, on:, id: record.id, **told(kind, record)) }

      # The story so far, as the state machine reads it.
      def life
        Core::Recheck::PatchLife.new(story, seed_bank_years: plant&.seed_bank_years&.fetch("likely"),
                                            fragment_years: plant&.fragment_years&.fetch("likely"))
      end

      # [[date, :observation, :treatment or :check, record]] of this ground: its own, what it was parted from
      # until then, and what it took in.
      def history
        own = observations.map { |o| [o.seen_on, :observation, o] } + treatments.map { |t| [t.done_on, :treatment, t] } +
              checks.map { |c| [c.checked_on, :check, c] }
        before = parent ? parent.history.select { |on, _, record| on <= parted_on && record.created_at <= created_at } : []
        taken_in = absorbed.flat_map(&:history)
        (before + own + taken_in).sort_by { |on, kind, record| [on, KINDS_IN_ORDER.index(kind), record.id] }
      end

      KINDS_IN_ORDER = %i[observation check treatment].freeze

      # Sets the state and the visits that the records say. Call it after any record is added, corrected or taken away.
      def follow_records
        reload
        was, now = state, life.state
        update(state: now, closed_on: now == "closed" ? checks.last&.checked_on : nil)
        FollowUps.settle(self)
        Overlaps.settle(property, [id]) if [was, now].one?("closed")
      end

      # Itself, what was parted from it, and what took it in: whose history a record of this patch belongs to.
      def kin
        found = [self]
        found.each do |patch|
          found.concat(self.class.where(parent_id: patch.id).or(id: patch.merged_into_id).exclude(id: found.map(&:id)).all)
        end
        found.reject(&:deleted_at)
      end

      # Name, cover and amounts as its records say them.
      def figures = PatchFigures.new(self)

      # When the trees of a climber were last freed.
      def freed_on
        return unless plant&.is?(:climbing)

        # Most ground has no lineage, and its own treatments say it without reading the rest.
        alone = values.fetch(:lineage) { parent_id || absorbed.any? ? 1 : 0 }.zero?
        done = alone ? treatments : self.class[id].history.filter_map { |_, kind, record| record if kind == :treatment }
        done.reverse.find { |treatment| treatment.removal.is?(:freeing) }&.done_on
      end

      # Would anything that lives have been up on a day, or within a fortnight of it? Where the plant is not known, yes. By the
      # year's weather alone: a state does not turn because someone saw a leaf.
      def shows?(date)
        return true unless plant

        @calendar ||= Core::Season::Phenology.new(plant, property.site(Setting.today), sightings: [])
        [date - SHOWS_WITHIN, date, date + SHOWS_WITHIN].any? { |day| @calendar.phases_on(day).intersect?(SHOWING) }
      end

      def open_tasks = tasks.select(&:open?)

      # The last work that takes plants out: what a look looks at.
      def last_treatment = treatments.reverse.find { |treatment| treatment.removal.removes? }

      private

      def told(kind, record)
        case kind
        when :observation then { settled: record.settled }
        when :treatment then { method: record.method_key, removes: record.removal.removes?, seed_fall: record.seed_fall }
        when :check then { live: record.live?, note: record.again, shows: record.live? || shows?(record.checked_on),
                           seed_fall: record.seed_fall }
        end
      end
    end
  end
end
