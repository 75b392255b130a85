# frozen_string_literal: true

# What people say of the ground that is planted; seed on the shelf by its tag; what goes back as a plan.
Sequel.migration do
  up do
    create_table(:site_sheets) do
      primary_key :id
      foreign_key :patch_id, :patches, null: false, on_delete: :cascade, unique: true
      String :said, text: true, null: false # JSON, {fact => what was said}, keys of Core::Replant::SiteSheet
      DateTime :created_at, null: false
    end
    create_table(:seed_lots) do
      primary_key :id
      String :native_key, null: false, index: true
      String :name, null: false # what its tag calls it
      TrueClass :cleaned, null: false, default: true
      Float :purity # shares; null where no tag says
      Float :germination
      Date :tested_on
      Float :grams, null: false
      Float :cost_g
      Date :gathered_on # by hand, on our own ground
      DateTime :deleted_at
      DateTime :created_at, null: false
    end
    create_table(:planting_plans) do
      primary_key :id
      foreign_key :patch_id, :patches, null: false, on_delete: :cascade, index: true
      String :kind, null: false # seed, plugs
      Float :area_m2, null: false
      String :said, text: true, null: false # JSON: the site, as it was said when it was planned
      String :mix, text: true, null: false # JSON: [{native, share, ...}]
      String :bed, text: true # JSON: what the drawing hangs on, where plants were moved to
      String :reason, text: true # why a species of a nearby region
      Integer :version, null: false, default: 0
      DateTime :deleted_at
      DateTime :created_at, null: false
    end
    create_table(:gather_places) do
      primary_key :id
      foreign_key :property_id, :properties, null: false, on_delete: :cascade, index: true
      String :native_key, null: false
      Float :longitude, null: false
      Float :latitude, null: false
      Integer :plants
      String :note, text: true
      DateTime :deleted_at
      DateTime :created_at, null: false
    end
    create_table(:waterings) do
      primary_key :id
      foreign_key :patch_id, :patches, null: false, on_delete: :cascade
      Date :watered_on, null: false
      DateTime :deleted_at
      DateTime :created_at, null: false
      index %i[patch_id watered_on], unique: true
    end
    create_table(:take_counts) do
      primary_key :id
      foreign_key :planting_id, :plantings, null: false, on_delete: :cascade, index: true
      Date :counted_on, null: false
      Integer :alive # of `looked_at` plants; null where cover was counted
      Integer :looked_at
      String :frames, text: true # JSON: percent of cover in each frame
      String :note, text: true
      DateTime :deleted_at
      DateTime :created_at, null: false
    end
    alter_table(:plantings) { add_foreign_key :plan_id, :planting_plans, on_delete: :set_null }
  end

  down { raise Sequel::Error, "going back would lose data" }
end
