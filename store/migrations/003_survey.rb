# frozen_string_literal: true

# Survey: zones that keep a distance, shapes with versions, amounts by observation, searched ground, layers,
# a journal that undoes, and imports that are looked at before they are taken.
Sequel.migration do
  up do
    alter_table(:properties) { add_column :tile_url, String }

    alter_table(:zones) do
      add_column :keep_m, Float
      add_column :note, String, text: true
      add_column :west, Float
      add_column :south, Float
      add_column :east, Float
      add_column :north, Float
      add_column :seen_on, Date
      add_column :deleted_at, DateTime
    end

    alter_table(:patches) do
      add_column :parent_id, Integer
      add_column :parted_on, Date
      add_column :merged_into_id, Integer
      add_column :merged_on, Date
      add_column :shape_from, Date
      add_column :closed_on, Date
      add_column :outline, String, text: true # fewer corners, for drawing alone
      add_column :shared_m2, Float, null: false, default: 0.0 # ground of patches with a lower id that this one lies on
      add_column :zones_near, String, text: true
      add_column :slope_deg, Float
      add_column :aspect_deg, Float
      add_column :cover_percent, Float
      add_column :density_m2, Float
      add_column :height_cm, Float
      add_column :stems_by_size, String, text: true
      add_column :stage, String
      add_index :parent_id, where: Sequel.lit("parent_id IS NOT NULL")
      add_index :merged_into_id, where: Sequel.lit("merged_into_id IS NOT NULL")
      # Totals read this index and never the rows, whose shapes are most of them.
      add_index %i[property_id deleted_at state plant_key shape_from closed_on gross_m2 shared_m2 infested_m2
                   cover_percent cover_class stems], name: :patch_sums
    end

    alter_table(:observations) do
      add_column :gross_m2, Float
      add_column :infested_m2, Float
      add_column :cover_class, Integer
      add_column :cover_percent, Float
      add_column :density_m2, Float
      add_column :height_cm, Float
      add_column :stems_by_size, String, text: true
      add_column :people, String
    end

    # What a patch looked like before; the present shape is the patch's own, since shape_from.
    create_table(:patch_shapes) do
      primary_key :id
      foreign_key :patch_id, :patches, null: false, on_delete: :cascade, index: true
      Date :from_on, null: false
      Date :to_on, null: false
      String :geometry, text: true, null: false
      Float :gross_m2
      Float :infested_m2
    end

    create_table(:patch_zones) do
      foreign_key :patch_id, :patches, null: false, on_delete: :cascade
      foreign_key :zone_id, :zones, null: false, on_delete: :cascade, index: true
      Float :shared_m2, null: false
      primary_key %i[patch_id zone_id]
    end

    create_table(:searches) do
      primary_key :id
      foreign_key :property_id, :properties, null: false, on_delete: :cascade, index: true
      foreign_key :arrival_id, :arrivals, on_delete: :set_null, index: true
      Date :searched_on, null: false
      String :people
      Float :sight_m
      Float :length_m
      Float :area_m2, null: false
      Float :minutes
      String :geometry, text: true, null: false # the track or the area as recorded
      String :ground, text: true, null: false   # what was in sight
      String :note, text: true
      DateTime :deleted_at
      DateTime :created_at, null: false
    end

    create_table(:search_plants) do
      foreign_key :search_id, :searches, null: false, on_delete: :cascade
      String :plant_key, null: false
      TrueClass :found, null: false
      primary_key %i[search_id plant_key]
    end

    create_table(:layers) do
      primary_key :id
      foreign_key :property_id, :properties, null: false, on_delete: :cascade, index: true
      String :kind, null: false
      String :name, null: false
      String :file, null: false
      String :facts, text: true, null: false, default: "{}"
      TrueClass :shown, null: false, default: true
      DateTime :deleted_at
      DateTime :created_at, null: false
    end

    create_table(:changes) do
      primary_key :id
      foreign_key :property_id, :properties, null: false, on_delete: :cascade, index: true
      Integer :patch_id, index: true
      String :label, null: false
      String :undo, text: true, null: false
      DateTime :undone_at
      DateTime :created_at, null: false
    end

    alter_table(:arrivals) do
      add_column :status, String, null: false, default: "taken" # draft, taking, taken, failed
      add_column :format, String
      add_column :mapping, String, text: true
      add_column :apart_m, Float, null: false, default: 5.0
      add_column :doubles, String, null: false, default: "skip"
      add_column :sure, TrueClass, null: false, default: false
      add_column :done, Integer, null: false, default: 0
      add_column :total, Integer, null: false, default: 0
      add_column :fault, String, text: true
    end

    create_table(:arrival_rows) do
      primary_key :id
      foreign_key :arrival_id, :arrivals, null: false, on_delete: :cascade, index: true
      Integer :row, null: false
      String :name
      String :geometry, text: true
      String :properties, text: true
      String :notes # what was done to it on the way in
      String :verdict
      String :reason
      Integer :patch_id
      Integer :change_id # the journal's entry, where it changed a patch
    end

    create_table(:mappings) do
      primary_key :id
      String :columns, text: true, null: false, unique: true
      String :mapping, text: true, null: false
    end

    run "CREATE VIRTUAL TABLE zone_extents USING rtree(id, west, east, south, north)"
    run <<~SQL
      CREATE TRIGGER zone_extent_added AFTER INSERT ON zones WHEN new.west IS NOT NULL BEGIN
        INSERT INTO zone_extents VALUES (new.id, new.west, new.east, new.south, new.north);
      END
    SQL
    run <<~SQL
      CREATE TRIGGER zone_extent_moved AFTER UPDATE OF west, east, south, north ON zones BEGIN
        DELETE FROM zone_extents WHERE id = new.id;
        INSERT INTO zone_extents VALUES (new.id, new.west, new.east, new.south, new.north);
      END
    SQL
    run <<~SQL
      CREATE TRIGGER zone_extent_removed AFTER DELETE ON zones BEGIN
        DELETE FROM zone_extents WHERE id = old.id;
      END
    SQL

    from(:patches).update(shape_from: Sequel[:seen_on])
    run "UPDATE patches SET closed_on = (SELECT MAX(checked_on) FROM checks WHERE patch_id = patches.id) " \
        "WHERE state = 'closed'"
    from(:zones).select(:id, :geometry).each do |zone|
      lons, lats = JSON.parse(zone[:geometry])["coordinates"].flatten.each_slice(2).to_a.transpose
      from(:zones).where(id: zone[:id]).update(west: lons.min, east: lons.max, south: lats.min, north: lats.max)
    end
  end

  down { raise Sequel::Error, "going back would lose data" }
end
