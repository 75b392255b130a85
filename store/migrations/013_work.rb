# frozen_string_literal: true

# The group's people, its work days and what was tapped on them, and the tools that it owns.
Sequel.migration do
  up do
    create_table(:people) do
      primary_key :id
      String :name, null: false
      %i[roles training cannot].each { |list| String list, null: false, default: "[]", text: true }
      String :licence_number
      String :licence_category
      Date :licence_expires_on
      String :emergency, text: true
      String :note, text: true
      Integer :lock_version, null: false, default: 0
      DateTime :deleted_at
      DateTime :created_at, null: false
      DateTime :updated_at
    end
    # Names in older records, and whose they are.
    create_table(:person_names) do
      String :name, primary_key: true
      foreign_key :person_id, :people, null: false, on_delete: :cascade
    end
    create_table(:work_days) do
      primary_key :id
      foreign_key :property_id, :properties, null: false, on_delete: :cascade, index: true
      Date :held_on, null: false
      String :starts_at, null: false # HH:MM on the clock of the place
      String :ends_at, null: false
      String :meet, text: true
      String :help, text: true # the nearest, as the steward says
      Integer :seats
      Integer :hands, null: false, default: 0 # people who come and are on no list
      String :people_ids, null: false, default: "[]", text: true
      String :tools, null: false, default: "{}", text: true # {key of kit.yml: how many}
      String :pins, null: false, default: "{}", text: true # {patch id: block, or null for any}
      String :bans, null: false, default: "[]", text: true # [patch id]
      String :answer, text: true
      String :note, text: true
      DateTime :closed_at
      Integer :lock_version, null: false, default: 0
      DateTime :deleted_at
      DateTime :created_at, null: false
      DateTime :updated_at
      index %i[property_id held_on]
    end
    # What was tapped in the field, each once: key is made where it was tapped.
    create_table(:taps) do
      primary_key :id
      foreign_key :work_day_id, :work_days, null: false, on_delete: :cascade, index: true
      foreign_key :patch_id, :patches, on_delete: :cascade
      String :key, null: false, unique: true
      String :kind, null: false
      String :what
      Float :amount
      DateTime :at, null: false
      DateTime :taken_back_at
      DateTime :created_at, null: false
    end
    create_table(:pictures) do
      primary_key :id
      foreign_key :patch_id, :patches, null: false, on_delete: :cascade, index: true
      Integer :work_day_id
      String :moment, null: false # before or after
      String :filename, null: false
      String :media, null: false
      Date :taken_on, null: false
      Float :latitude
      Float :longitude
      Float :direction
      File :bytes, null: false
      DateTime :deleted_at
      DateTime :created_at, null: false
    end
    create_table(:kit_items) do
      primary_key :id
      String :kind, null: false # key of kit.yml
      String :name, null: false
      Integer :owned, null: false, default: 1
      Integer :broken, null: false, default: 0
      Integer :lent, null: false, default: 0
      String :lent_to
      Date :sharpen_on
      Date :tested_on
      String :note
      DateTime :deleted_at
      DateTime :created_at, null: false
      DateTime :updated_at
    end
    alter_table(:cleanings) do
      add_column :way, String # in or out
      add_column :what, String, null: false, default: "[]" # boots, tools, vehicle
    end
    alter_table(:treatments) do
      add_column :people_ids, String, null: false, default: "[]", text: true
      add_column :work_day_id, Integer
    end
  end

  down { raise Sequel::Error, "going back would lose data" }
end
