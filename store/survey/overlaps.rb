# frozen_string_literal: true

module Thistle
  module Store
    # Process: ground that several patches share, so that a property's total counts it once. Each patch keeps how much
    # of it lies on patches with a lower id; gross minus that, summed over the property, is the area of them all
    # together.
    module Overlaps
      SLICE = 200 # patches measured and written in one go, so that other writers get their turn
      SHOWN = 60 # neighbours that a patch's page measures

      module_function

      # Settles it for the given patches and all that meet them now (name those that they met before as well); for those
      # from an id on, which are new; or for the whole property.
      def settle(property, ids = nil, from: nil)
        return share(property, pairs(property, "a.id >= #{from.to_i}")) if from

        touched = ids && (ids + neighbours(ids)).uniq
        patches = Patch.where(property_id: property.id).where(touched ? { id: touched } : {})
        patches.exclude(shared_m2: 0).update(shared_m2: 0)
        share(property, pairs(property, touched ? "a.id IN (#{touched.map(&:to_i).join(",")})" : "1"))
      end

      # Ids of patches whose boxes meet those of the given ones, on the map or off it.
      def neighbours(ids)
        Patch.db.fetch(<<~SQL).select_map(:id)
          SELECT DISTINCT b.id FROM patch_extents a CROSS JOIN patch_extents b
            ON b.west <= a.east AND b.east >= a.west AND b.south <= a.north AND b.north >= a.south
          WHERE a.id IN (#{ids.map(&:to_i).join(",")})
        SQL
      end

      # Patches, other than itself, whose ground a patch shares: {patch => m²}.
      def with(patch)
        mine = patch.ground or return {}
        near = patch.property.live_patches.within([patch.west, patch.south, patch.east, patch.north])
                    .exclude(id: patch.id).exclude(state: "closed").limit(SHOWN)
        near.to_h { |other| [other, other.ground ? Core::Survey::Overlay.shared(mine, other.ground) : 0.0] }
            .select { |_, m2| m2 > Core::Survey::Overlay::SHARED_M2 }
      end

      def share(property, pairs)
        pairs.group_by(&:first).each_slice(SLICE) do |some|
          grounds = {}
          found = some.map { |id, rows| [id, shared(id, rows.map(&:last), grounds)] }.select { |_, m2| m2.positive? }
          next unless found.any?

          Patch.db.transaction do
            found.each { |id, shared_m2| Patch.where(id:, property_id: property.id).update(shared_m2:) }
          end
        end
      end

      # m² of a patch that lie on others.
      def shared(id, others, grounds)
        mine = ground(id, grounds) or return 0.0
        others = others.filter_map { |other| ground(other, grounds) }
        others.empty? ? 0.0 : Core::Survey::Overlay.shared(mine, Core::Survey::Overlay.union(others))
      end

      # [[id, lower id]] of patches whose boxes meet, through the tree; `which` is SQL about a and b.
      def pairs(property, which)
        Patch.db.fetch(<<~SQL, property_id: property.id).map { |row| row.values_at(:id, :other) }
          SELECT a.id AS id, b.id AS other FROM patch_extents a
          CROSS JOIN patch_extents b ON b.west <= a.east AND b.east >= a.west
            AND b.south <= a.north AND b.north >= a.south AND b.id < a.id
          CROSS JOIN patches p ON p.id = a.id
            AND p.property_id = :property_id AND p.deleted_at IS NULL AND p.state <> 'closed'
          CROSS JOIN patches q ON q.id = b.id
            AND q.property_id = :property_id AND q.deleted_at IS NULL AND q.state <> 'closed'
          WHERE #{which}
        SQL
      end

      def ground(id, known) = known.fetch(id) { known[id] = Patch[id]&.ground }
      private_class_method :share, :shared, :pairs, :ground
    end
  end
end
