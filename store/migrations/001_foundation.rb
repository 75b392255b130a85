# frozen_string_literal: true

# SI units, UTC instants (created_at, updated_at), local dates (the *_on columns).
Sequel.migration do
  up do
    create_table(:settings) do
      String :key, primary_key: true
      String :value, text: true
    end

    create_table(:properties) do
      primary_key :id
      String :name, null: false
      String :prefix, null: false, unique: true
      String :units, null: false, default: "metric"
      Float :latitude, null: false
      Float :longitude, null: false
      String :texture, null: false, default: "loam"
      String :stance, null: false, default: "stem"
      TrueClass :licensed, null: false, default: false
      TrueClass :aquatic_label, null: false, default: false
      Integer :station_seed, null: false
      String :climate, text: true, null: false
      String :note, text: true
    end

    create_table(:zones) do
      primary_key :id
      foreign_key :property_id, :properties, null: false, on_delete: :cascade, index: true
      String :kind, null: false
      String :name
      String :geometry, text: true, null: false
    end

    create_table(:arrivals) do
      primary_key :id
      foreign_key :property_id, :properties, null: false, on_delete: :cascade
      String :filename, null: false
      String :report, text: true, null: false
      DateTime :undone_at
      DateTime :created_at, null: false
    end

    create_table(:patches) do
      primary_key :id
      foreign_key :property_id, :properties, null: false, on_delete: :cascade, index: true
      foreign_key :arrival_id, :arrivals, on_delete: :set_null, index: true
      String :code, null: false
      String :plant_key
      String :state, null: false, default: "reported"
      String :geometry, text: true, null: false
      Float :west, null: false
      Float :south, null: false
      Float :east, null: false
      Float :north, null: false
      Float :gross_m2
      Float :length_m
      Float :width_m
      Float :radius_m
      Float :water_m
      Integer :stems
      String :stem_size
      Integer :cover_class
      Float :infested_m2 # measured; an estimate from cover is computed, never stored over it
      String :slope, null: false, default: "flat"
      String :light
      String :moisture
      TrueClass :natives_near
      String :note, text: true
      Date :seen_on, null: false
      Integer :lock_version, null: false, default: 0
      DateTime :deleted_at
      DateTime :created_at, null: false
      DateTime :updated_at, null: false
      unique %i[property_id code]
      index %i[property_id state]
      index :state
    end

    create_table(:observations) do
      primary_key :id
      foreign_key :patch_id, :patches, null: false, on_delete: :cascade, index: true
      Date :seen_on, null: false
      String :plant_key
      TrueClass :settled, null: false
      Float :probability
      String :characters, text: true
      String :stage
      String :note, text: true
      DateTime :created_at, null: false
    end

    create_table(:treatments) do
      primary_key :id
      foreign_key :patch_id, :patches, null: false, on_delete: :cascade, index: true
      Date :done_on, null: false
      String :method_key, null: false
      String :people
      Integer :crew_size
      Float :hours
      Integer :stems_done
      Float :area_m2
      String :active_key
      Float :product_ml
      Float :mix_ml
      String :applicator
      String :weather, text: true
      String :disposal
      String :note, text: true
      DateTime :created_at, null: false
    end

    create_table(:checks) do
      primary_key :id
      foreign_key :patch_id, :patches, null: false, on_delete: :cascade, index: true
      foreign_key :treatment_id, :treatments, on_delete: :set_null
      Date :checked_on, null: false
      Integer :resprouts, null: false, default: 0
      Integer :missed, null: false, default: 0
      Integer :seedlings, null: false, default: 0
      Integer :cover_class
      String :people
      String :note, text: true
      DateTime :created_at, null: false
    end

    create_table(:tasks) do
      primary_key :id
      foreign_key :patch_id, :patches, null: false, on_delete: :cascade, index: true
      foreign_key :treatment_id, :treatments, on_delete: :cascade
      String :kind, null: false
      Date :due_on, null: false
      Float :rain_mm
      String :reason, null: false
      String :source, null: false
      Date :done_on
      index %i[done_on due_on]
    end

    create_table(:plantings) do
      primary_key :id
      foreign_key :patch_id, :patches, null: false, on_delete: :cascade, index: true
      String :native_key, null: false
      Float :area_m2, null: false
      Integer :plugs
      Float :seed_g
      Date :from_on, null: false
      Date :to_on, null: false
      Date :done_on
      DateTime :created_at, null: false
    end

    run "CREATE VIRTUAL TABLE patch_extents USING rtree(id, west, east, south, north)"
    run <<~SQL
      CREATE TRIGGER patch_extent_added AFTER INSERT ON patches BEGIN
        INSERT INTO patch_extents VALUES (new.id, new.west, new.east, new.south, new.north);
      END
    SQL
    run <<~SQL
      CREATE TRIGGER patch_extent_moved AFTER UPDATE OF west, east, south, north ON patches BEGIN
        UPDATE patch_extents SET west = new.west, east = new.east, south = new.south, north = new.north WHERE id = new.id;
      END
    SQL
    run <<~SQL
      CREATE TRIGGER patch_extent_removed AFTER DELETE ON patches BEGIN
        DELETE FROM patch_extents WHERE id = old.id;
      END
    SQL
  end

  down { raise Sequel::Error, "going back would lose data" }
end
