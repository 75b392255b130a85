# frozen_string_literal: true

# What the identify room keeps: where a property lies, reports for a specialist with their photographs,
# names to be found, and what each person practised.
Sequel.migration do
  up do
    alter_table(:properties) do
      add_column :region, String
      add_column :watch, String, text: true, null: false, default: "[]" # JSON: plants to report before removal
    end

    create_table(:reports) do
      primary_key :id
      foreign_key :property_id, :properties, null: false, on_delete: :cascade, index: true
      foreign_key :patch_id, :patches, on_delete: :cascade, index: true
      Date :seen_on, null: false
      String :looks, text: true, null: false # JSON: observed, absent, skipped
      String :candidates, text: true, null: false # JSON: [{plant, probability}]
      Float :latitude
      Float :longitude
      String :recorder
      String :note, text: true
      String :answer_key
      String :answered_by
      Date :answered_on
      String :answer_note, text: true
      DateTime :created_at, null: false
    end

    create_table(:photos) do
      primary_key :id
      foreign_key :report_id, :reports, null: false, on_delete: :cascade, index: true
      String :filename, null: false
      String :media, null: false
      Date :taken_on
      Float :latitude
      Float :longitude
      File :bytes, null: false
      DateTime :created_at, null: false
    end

    create_table(:practice) do
      primary_key :id
      String :person, null: false
      String :plant_key, null: false
      String :answer_key, null: false
      String :kind, null: false, default: "name" # name, or method
      Date :on, null: false
      DateTime :created_at, null: false
      index %i[person on]
    end

    run "CREATE VIRTUAL TABLE plant_names USING fts5(key UNINDEXED, name, tokenize = 'trigram')"
  end

  down { raise Sequel::Error, "going back would lose data" }
end
