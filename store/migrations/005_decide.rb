# frozen_string_literal: true

# Decide: schools and money of a property, what a patch's place says of its rank, rules switched off and local ones,
# courses with their steps, season plans.
Sequel.migration do
  up do
    alter_table(:properties) do
      add_column :schools, String, text: true, null: false, default: "{}"
      add_column :weights, String, text: true
      add_column :hour_cost, Float
      add_column :litre_cost, Float
      add_column :currency, String
    end

    alter_table(:patches) do
      add_column :schools, String, text: true, null: false, default: "{}"
      add_column :footing, String
      add_column :place, String, text: true # nearest way of spread, worth, source, building
    end

    create_table(:rule_settings) do
      primary_key :id
      foreign_key :property_id, :properties, null: false, on_delete: :cascade, index: true
      String :rule_key, null: false
      String :reason, text: true, null: false
      String :person, null: false
      Date :said_on, null: false
      DateTime :deleted_at
      DateTime :created_at, null: false
    end

    create_table(:local_rules) do
      primary_key :id
      foreign_key :property_id, :properties, null: false, on_delete: :cascade, index: true
      String :about, null: false
      foreign_key :zone_id, :zones, on_delete: :cascade
      String :plant_key
      String :from_md, size: 5 # MM-DD
      String :to_md, size: 5
      String :reason, text: true, null: false
      String :person, null: false
      Date :said_on, null: false
      DateTime :deleted_at
      DateTime :created_at, null: false
    end

    create_table(:courses) do
      primary_key :id
      foreign_key :patch_id, :patches, null: false, on_delete: :cascade, index: true
      String :method_key, null: false
      String :advised_key
      String :reason, text: true # why otherwise than advised
      String :person, null: false
      Date :chosen_on, null: false
      Float :hours
      Integer :years
      DateTime :left_at
      DateTime :created_at, null: false
    end

    create_table(:course_steps) do
      primary_key :id
      foreign_key :course_id, :courses, null: false, on_delete: :cascade, index: true
      String :kind, null: false
      Date :due_on, null: false
      Date :until_on
      String :text, text: true, null: false
      String :source, null: false
      String :method_key
      Date :done_on
      DateTime :deleted_at
    end

    alter_table(:tasks) { add_foreign_key :course_id, :courses, on_delete: :set_null }

    create_table(:season_plans) do
      primary_key :id
      foreign_key :property_id, :properties, null: false, on_delete: :cascade, index: true
      String :asked, text: true, null: false # what was typed
      String :answer, text: true
      String :status, null: false, default: "solving"
      String :fault, text: true
      DateTime :created_at, null: false
    end
  end

  down { raise Sequel::Error, "going back would lose data" }
end
