# frozen_string_literal: true

module Thistle
  module Store
    # Reading: patches that want work, of all properties, in groups that are the same in everything that an agenda's
    # rules look at: one query, whose cost hardly grows with what a group holds. A patch with a history of its own
    # (freed, parted, planted, reported) stands alone.
    module Alike
      # id: of the one that stands for them; ids: of all of them, ascending; property_id, plant_key: theirs; told: all
      # that an agenda's rules look at, as one text; alone: has it a history of its own, which that text does not tell?
      Group = Struct.new(:id, :ids, :property_id, :plant_key, :told, :alone)
      NEAR, FEW = Core::Decide::Facts::NEAR_WATER_M, Core::Decide::Facts::FEW
      COLUMNS = %i[property_id plant_key stem_size slope natives_near zones_near footing schools aim].freeze
      FREEING = Core::Knowledge.shipped.methods_of_removal.values.select { |removal| removal.is?(:freeing) }
                               .map(&:key).freeze
      ALONE = <<~SQL.freeze
        parent_id IS NOT NULL OR id IN (SELECT merged_into_id FROM patches WHERE merged_into_id IS NOT NULL)
        OR id IN (SELECT patch_id FROM treatments
                  WHERE deleted_at IS NULL AND method_key IN (#{FREEING.map { |key| "'#{key}'" }.join(",")}))
        OR id IN (SELECT patch_id FROM reports WHERE patch_id IS NOT NULL)
      SQL

      module_function

      # [Group] of the patches with a plant; those of some properties alone where they are given.
      # young: ids of patches on whose ground something young stands.
      def groups(property_ids: nil, young: [])
        own = "#{ALONE} OR id IN (#{young.map(&:to_i).join(",")})"
        alike = [*COLUMNS, *bounds(own)]
        there = property_ids ? { property_id: property_ids } : {}
        rows = Patch.wanting_work.exclude(plant_key: nil).where(there).unordered.naked
                    .group(*alike).select do
          [min(id).as(:id), Sequel.lit("group_concat(id)").as(:ids), :property_id, :plant_key,
           json_array(*alike).as(:told), Sequel.lit("(#{own})").as(:alone)]
        end
        rows.all.map do |row|
          row[:ids] = row[:ids].to_s.split(",").map(&:to_i).sort
          Group.new(*row.values_at(*Group.members)).tap { |group| group.alone = group.alone == 1 }
        end
      end

      # The patches that stand for some groups, with what an agenda looks at: {id => Patch}.
      def patches(groups)
        groups.each_slice(1000).reduce({}) do |all, some|
          all.merge(Patch.where(id: some.map(&:id)).for_agenda.eager(:treatments, :reports).as_hash(:id))
        end
      end

      # What only counts by the bounds between which it lies (Core::Decide::Agenda).
      def bounds(alone)
        cover = Totals::COVERED
        slopes = "CASE WHEN slope_deg < #{Core::Survey::Elevation::FLAT} THEN 0 WHEN slope_deg < " \
                 "#{Core::Survey::Elevation::STEEP} THEN 1 WHEN slope_deg IS NOT NULL THEN 2 END"
        ["state = 'reported'", "water_m IS NULL OR water_m < #{NEAR}", "water_m = 0",
         "COALESCE(alive, plants, stems) > #{FEW}", "alive = 0 AND young > 0", "#{cover} IS NULL",
         "#{cover} > 50", "#{cover} < 75", slopes,
         "CASE WHEN #{alone} THEN id END"].map { |sql| Sequel.lit("(#{sql})") }
      end
      private_class_method :bounds
    end
  end
end
