# frozen_string_literal: true

# Season: where a property's weather comes from and its files, what people saw of the year, labels' limits, cleaning,
# tasks that wait for an event, and the address of the calendar.
Sequel.migration do
  up do
    alter_table(:properties) do
      add_column :timezone, String
      add_column :elevation_m, Float
      add_column :climate_kind, String
      add_column :feed, String, null: false, default: "simulated"
      add_column :station_name, String
      add_column :station_latitude, Float
      add_column :station_longitude, Float
      add_column :station_elevation_m, Float
      add_column :calendar_token, String
      add_column :placed, TrueClass, null: false, default: true # false: the region's middle stands for its place
      add_column :season_version, Integer, null: false, default: 0
    end

    create_table(:weather_files) do
      primary_key :id
      foreign_key :property_id, :properties, null: false, on_delete: :cascade, index: true
      String :filename, null: false
      File :bytes
      String :mapping, text: true, null: false
      String :zone, null: false, default: "local"
      String :report, text: true
      DateTime :taken_at
      DateTime :created_at, null: false
    end

    create_table(:weather_days) do
      foreign_key :property_id, :properties, null: false, on_delete: :cascade
      Date :date, null: false
      foreign_key :file_id, :weather_files, null: false, on_delete: :cascade, index: true
      Float :tmin, null: false
      Float :tmax, null: false
      Float :rain
      Float :wind
      Float :humidity
      Float :gust
      Float :radiation
      primary_key %i[property_id date file_id]
    end

    create_table(:weather_hours) do
      foreign_key :property_id, :properties, null: false, on_delete: :cascade
      DateTime :at, null: false
      foreign_key :file_id, :weather_files, null: false, on_delete: :cascade, index: true
      Float :temperature, null: false
      Float :rain
      Float :wind
      Float :humidity
      Float :gust
      primary_key %i[property_id at file_id]
    end

    create_table(:sightings) do
      primary_key :id
      foreign_key :property_id, :properties, null: false, on_delete: :cascade, index: true
      String :kind, null: false # anchor, phase, soil
      String :plant_key
      String :said, null: false # the mark, the phase, the soil's class
      Date :seen_on, null: false
      TrueClass :began, null: false, default: false
      String :person
      String :note, text: true
      DateTime :deleted_at
      DateTime :created_at, null: false
    end

    create_table(:labels) do
      primary_key :id
      foreign_key :property_id, :properties, null: false, on_delete: :cascade, index: true
      String :kind, null: false
      String :product
      Float :wind_low
      Float :wind_high
      Float :gust
      Float :temperature_low
      Float :temperature_high
      Float :rainfast_h
      DateTime :updated_at
      unique %i[property_id kind]
    end

    create_table(:cleanings) do
      primary_key :id
      foreign_key :property_id, :properties, null: false, on_delete: :cascade, index: true
      Date :done_on, null: false
      String :people
      DateTime :created_at, null: false
    end

    alter_table(:tasks) do
      add_column :event, String, text: true
      add_column :since_on, Date
      add_column :happened_on, Date
    end
    run <<~SQL
      UPDATE tasks SET event = json_object('rain_mm', rain_mm, 'within', 1, 'days_after', 3),
        since_on = (SELECT done_on FROM treatments WHERE treatments.id = tasks.treatment_id)
      WHERE rain_mm IS NOT NULL AND treatment_id IS NOT NULL
    SQL
    alter_table(:tasks) do
      drop_column :rain_mm
      add_index :due_on, name: :tasks_awaited, where: Sequel.lit("event IS NOT NULL AND done_on IS NULL")
    end
  end

  down { raise Sequel::Error, "going back would lose data" }
end
