# frozen_string_literal: true

module Thistle
  module Store
    # Process: what a patch's place says: distance to water, the zones it touches or stands too near to, the lie of the
    # land, the ground it shares with other patches. Written beside the patch whenever a shape or a zone changes, so
    # that an agenda or a total reads it and measures nothing.
    class Surroundings
      SILENT = %w[boundary contour trail building].freeze # kinds that ask nothing of a patch

      AT_ONCE = 1000 # patches that are worked out while someone waits; more are done beside the page

      # Works out everything for patches of a property: all of them unless ids are given.
      def self.settle(property, ids = nil, job: nil)
        property.associations.delete(:zones)
        new(property).settle(ids || property.live_patches.unordered.order(:id).select_map(:id), job:)
      end

      # The same, beside the page where they are many. Call it after what changed is stored.
      def self.settle_soon(property, ids = nil)
        ids ||= property.live_patches.unordered.order(:id).select_map(:id)
        return settle(property, ids) if ids.size <= AT_ONCE

        Job.start("settle", property, total: ids.size, must: true)
           .later { |job| settle(property, ids, job:) }
      end

      # Work on a property that was cut off is done again, whole.
      def self.recover(all: false)
        Job.where(kind: "settle", status: "running").all.each do |job|
          next unless job.lost? || (all && job.pid == Process.pid)

          Property[job.subject_id]&.then { |property| settle_soon(property) } if job.give_up
        end
      end

      # The same for everything in the file, after it was brought up to date.
      def self.settle_all
        Property.each do |property|
          settle(property)
          Overlaps.settle(property)
        end
      end

      # What was worked out for one patch.
      def self.write(id, columns, zones)
        Patch.where(id:).update(columns)
        on_zones = Patch.db[:patch_zones]
        on_zones.where(patch_id: id).delete
        on_zones.multi_insert(zones.map { |zone_id, shared_m2| { patch_id: id, zone_id:, shared_m2: } }) if zones.any?
      end

      # The box of what a zone concerns.
      def self.reach(zone)
        box(zone, RankPlace.looks_at?(zone) ? [zone.distance_kept, RankPlace::FAR].max : zone.distance_kept)
      end

      # The zone's box with what is kept from it.
      def self.box(zone, keep = zone.distance_kept)
        Core::Degrees.around([zone.west, zone.south, zone.east, zone.north], [keep, 1].max)
      end

      def initialize(property)
        @property = property
        @zones = property.zones
        @water = @zones.select { |zone| zone.kind == "water" }
        @telling = @zones.reject { |zone| SILENT.include?(zone.kind) }
        @boxes = @telling.map { |zone| [zone, *self.class.box(zone)] }
        @rank_place = RankPlace.new(@zones)
        @elevation = Layer.elevation(property)
      end

      SLICE = 100 # patches written in one go, so that other writers get their turn

      # What costs time is worked out before the file is asked for. A job is told how far it is.
      def settle(ids, job: nil)
        ids.each_slice(SLICE).with_index do |some, n|
          patches = Patch.live.where(id: some).select(:id, :geometry, :width_m, :radius_m).all
          found = patches.map { |patch| [patch.id, *of(patch.shape, width_m: patch.width_m, radius_m: patch.radius_m)] }
          writing = proc { found.each { |row| self.class.write(*row) } }
          job ? job.hold(&writing) : Patch.db.transaction(&writing)
          job&.at((n * SLICE) + some.size)
        end
      end

      # [columns of the patch, {zone id => m² on it}]. Distances are from the edge of its ground, not from the middle of
      # a point or a line.
      def of(shape, width_m: nil, radius_m: nil)
        ground = Core::Survey::Overlay.ground(shape, width: width_m, radius: radius_m) || shape
        lie = @elevation&.lie(shape)
        [{ water_m: water(ground), zones_near: near_json(ground), place: @rank_place.of(ground), slope_deg: lie&.slope,
           aspect_deg: lie&.aspect },
         shared(ground)]
      end

      # Every telling zone with its distance from some ground, nearest first: [Core::Survey::Nearby].
      def all(ground) = @telling.map { |zone| nearby(zone, ground) }.sort_by(&:distance_m)

      private

      FAR_M, COARSE_M = 6000.0, 5.0 # beyond this, a stream that is drawn this coarsely is right to 0.1 %

      # m to the nearest mapped water; nil when none is mapped.
      def water(shape)
        return if @water.empty?

        plane = shape.plane
        fine, coarse = (@waters ||= {})[plane] ||= waters(plane)
        place = plane.feature(shape)
        far = coarse.distance(place)
        far > FAR_M ? far : fine.distance(place)
      end

      def waters(plane)
        fine = @water.map { |zone| plane.feature(zone.shape) }
        coarse = fine.map { |feature| feature.simplify_preserve_topology(COARSE_M) }
        [fine, coarse].map { |features| plane.factory.collection(features) }
      end

      def near_json(shape)
        found = in_reach(shape).map { |zone| nearby(zone, shape) }.select(&:within?)
        found.empty? ? nil : JSON.generate(found.sort_by(&:distance_m).map(&:to_h))
      end

      def nearby(zone, shape)
        Core::Survey::Nearby.new(id: zone.id, kind: zone.kind, name: (zone.name unless zone.nature.secret),
                                 distance_m: shape.distance(zone.shape).round(2),
                                 keep_m: zone.distance_kept)
      end

      # By boxes alone, so that far zones cost nothing.
      def in_reach(shape)
        west, south, east, north = shape.bounds
        @boxes.filter_map { |zone, w, s, e, n| zone if w <= east && e >= west && s <= north && n >= south }
      end

      def shared(ground)
        return {} unless ground.kind == "polygon"

        areas = in_reach(ground).select { |zone| zone.shape.kind == "polygon" }
        areas.to_h { |zone| [zone.id, Core::Survey::Overlay.shared(ground, zone.shape)] }
             .select { |_, m2| m2.positive? }
      end
    end
  end
end
