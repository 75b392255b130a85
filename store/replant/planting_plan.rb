# frozen_string_literal: true

module Thistle
  module Store
    # Model: what goes back into a patch as one plan: the site as it was said, the mix, the plants laid out on its
    # ground. Its plantings, one a native, are records of the patch.
    class PlantingPlan < Sequel::Model(:planting_plans)
      many_to_one :patch, class: "Thistle::Store::Patch"
      one_to_many :plantings, class: "Thistle::Store::Planting", key: :plan_id, order: :id,
                              conditions: { deleted_at: nil }

      Item = Core::Value.define(:native, :share, :spacing_m, :count, :bulk_g)
      MOVED = 2000.0 # m: farther than that from the bed's corner is no place in it

      include Live

      class << self
        # Writes a plan with its plantings. mix: [Item]; said: the site; reason: why a species of a nearby region;
        # sowing: how seed is sown ({way:, cold:, nurse:, nurse_g_m2:}).
        # Raises Core::BadInput (field :native, :area or :spacing) and writes nothing.
        def make(patch, kind:, area_m2:, mix:, said:, today:, grid: "triangular", reason: nil,
                 sowing: {})
          plan = new(patch_id: patch.id, kind:, area_m2:, said: JSON.generate(said), mix: written(mix), reason:,
                     sowing: JSON.generate(sowing), created_at: Time.now)
          plan.associations[:patch] = patch
          windows = plan.windows(today)
          bed = patch.ground ? JSON.generate(PlanBed.new(plan).lay(grid:)) : nil
          db.transaction do
            plan.set(bed:).save
            plan.record(windows)
            FollowUps.settle(patch)
          end
          plan
        end

        # The last live plans of a property.
        def latest(property, most = 12)
          live.where(patch_id: property.live_patches.unordered.select(:id)).order(Sequel.desc(:id)).limit(most)
              .eager(:patch).all
        end

        def written(mix)
          JSON.generate(mix.map { |item| { native: item.native.key, **item.to_h.except(:native).compact } })
        end
      end

      def seed? = kind == "seed"

      # The day on which it was made, on the clock of the place.
      def made_on = patch.property.clock.date(created_at)

      # What it asks for in its first years (Core::Replant::FirstYears); of one that was taken back, what is in the
      # ground does.
      def first_years(site)
        low, high = Core::Replant::Establishment.expected("seed", 1).values_at("mow_to_cm", "mow_at_cm")
        heights = [low, high].map { |cm| patch.property.measures.depth(cm) }
        Core::Replant::FirstYears.new(site, seed: seed?, planned_on: made_on, heights:,
                                            comes_on: (plantings.map(&:from_on).min unless deleted_at),
                                            planted_on: plantings.filter_map(&:done_on).uniq.sort)
      end

      def sown = JSON.parse(sowing, symbolize_names: true)

      # [words, g] of the nurse crop on all of it; nil without one.
      def nurse
        told = Core::Knowledge.shipped.nurse[sown[:nurse]] or return
        [told["label"], sown[:nurse_g_m2] * area_m2, told["text"]]
      end

      def moisture = JSON.parse(said)["moisture"]

      # [Item], by share.
      def items
        @items ||= JSON.parse(mix, symbolize_names: true).map do |row|
          Item.new(**row, native: Core::Knowledge.shipped.native(row[:native]))
        end
      end

      # The bed as it was laid out, or nil: {origin, grid, front, standing, rings, area_m2, plants}.
      def laid_out = @laid_out ||= bed && JSON.parse(bed, symbolize_names: true)

      # How many of each item stand in the drawing, else as they were worked out: [count or nil].
      def counts
        return items.map(&:count) if seed? || laid_out.nil?

        tally = laid_out[:plants].map(&:last).tally
        items.each_index.map { |n| tally.fetch(n, 0) }
      end

      # Lays the plants out anew. Raises Core::BadInput (field :area or :spacing).
      def lay(**how)
        drawn = JSON.generate(PlanBed.new(self).lay(**how))
        db.transaction do
          update(bed: drawn, version: Sequel[:version] + 1)
          refresh
          recount
        end
      end

      # Moves one plant, if nobody laid the bed out anew meanwhile; is it moved? x, y: m on the bed's plane.
      def move(number, x, y, version:)
        return false unless [x, y].all? { |metres| metres.abs < MOVED }

        db.transaction(mode: :immediate) do
          refresh
          next false unless version == self.version && number.between?(0, laid_out[:plants].size - 1)

          laid_out[:plants][number][0, 2] = [x.round(PlanBed::ROUND), y.round(PlanBed::ROUND)]
          update(bed: JSON.generate(laid_out))
          true
        end
      end

      # The next planting window of each item, {key => window}, past what a label keeps off the ground. Raises
      # Core::BadInput (field :native) where there is none.
      def windows(today)
        season = Core::Replant::Sowing.new(patch.property.site(today))
        kept = patch.history.kept_until(:unplanted, today)
        at_once = season.of_mix(items.map(&:native), cold: sown[:cold] || false) if seed?
        items.to_h do |item|
          window = (at_once || season.of(item.native)).find { |one| kept.nil? || one.to > kept }
          raise Core::BadInput.new("#{item.native.name} has no planting window here.", field: :native) unless window

          [item.native.key, kept && window.from <= kept ? window.with(from: kept + 1) : window]
        end
      end

      # One planting a native, on the patch's record.
      def record(windows)
        items.zip(counts).each do |item, count|
          window = windows.fetch(item.native.key)
          Planting.create(patch_id:, plan_id: id, native_key: item.native.key, area_m2: area_m2 * item.share,
                          plugs: count, seed_g: item.bulk_g, from_on: window.from, to_on: window.to)
        end
      end

      # What is in the ground as of a day: of all of it, or of some natives; counts: {key => how many went in}; what new
      # stock asks for goes onto the list.
      def planted(date, keys: nil, counts: {})
        rows = plantings.select { |one| one.done_on.nil? && (keys.nil? || keys.include?(one.native_key)) }
        return if rows.empty?

        db.transaction do
          rows.each { |one| one.planted(date, counts[one.native_key]) }
          FollowUps.settle_kin(patch)
        end
      end

      # Taken back, with what of it was not planted yet.
      def take_back
        db.transaction do
          update(deleted_at: Time.now)
          plantings_dataset.where(done_on: nil).update(deleted_at: Time.now)
          FollowUps.settle_kin(patch)
        end
      end

      private

      # Plantings that are not done follow the drawing.
      def recount
        items.zip(counts).each do |item, count|
          plantings_dataset.where(native_key: item.native.key, done_on: nil).update(plugs: count) unless seed?
        end
      end

      def _refresh(*)
        @items = @laid_out = nil
        super
      end
    end
  end
end
