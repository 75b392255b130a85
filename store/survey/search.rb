# frozen_string_literal: true

module Thistle
  module Store
    # Model: ground that was searched on a day, for which plants, and which of them were not there: an absence is a
    # record.
    class Search < Sequel::Model(:searches)
      many_to_one :property, class: "Thistle::Store::Property"

      dataset_module do
        def newest = reverse(:searched_on, :id)

        # All of them, with what each looked for: two questions, however many there are.
        def with_plants
          searches = all
          sought = db[:search_plants].where(search_id: searches.map(&:id)).to_hash_groups(:search_id)
          searches.each do |search|
            search.plants = sought.fetch(search.id, []).to_h { |row| row.values_at(:plant_key, :found) }
          end
        end
      end

      # shape: the track or area. plants: keys looked for; those of patches on the ground, and those in `found`, were
      # there. as_told: only `found` counts, for searches that someone else recorded.
      def self.record(property, shape, plants:, sight_m: nil, found: [], as_told: false, **fields)
        ground = Core::Survey::Searched.ground(shape, sight_m:)
        db.transaction do
          search = create(property_id: property.id, geometry: JSON.generate(shape.geometry),
                          ground: JSON.generate(ground.geometry),
                          area_m2: ground.area, length_m: shape.kind == "line" ? shape.length : nil, sight_m:, **fields)
          there = as_told ? found : found | search.patches_met.map(&:plant_key)
          plants.uniq.each do |key|
            db[:search_plants].insert(search_id: search.id, plant_key: key, found: there.include?(key))
          end
          search
        end
      end

      def shape = @shape ||= Core::Survey::Shape.stored(geometry)
      def seen_ground = @seen_ground ||= Core::Survey::Shape.stored(ground)

      attr_writer :plants

      # {plant key => was it there?}
      def plants = @plants ||= db[:search_plants].where(search_id: id).as_hash(:plant_key, :found)
      def absences = plants.reject { |_, found| found }.keys

      # Patches known by that day, not yet closed, that meet the ground.
      def patches_met
        property.live_patches.within(seen_ground.bounds).where(Sequel[:seen_on] <= searched_on).exclude(state: "closed")
                .all.select { |patch| seen_ground.distance(patch.shape).zero? }
      end
    end
  end
end
