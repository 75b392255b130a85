# frozen_string_literal: true

# What the law asks to be written down of herbicide; and which rule a property keeps.
Sequel.migration do
  up do
    alter_table(:treatments) do
      add_column :licence_number, String
      add_column :licence_category, String
      add_column :licence_expires_on, Date
      add_column :started_at, String # HH:MM on the clock of the place
      add_column :ended_at, String
      add_column :equipment, String
      add_column :left_over_ml, Float
      add_column :left_over_went, String
      add_column :hourly_weather, String, text: true # [{at, temperature, wind_km_h, humidity, standing}]
    end
    alter_table(:properties) { add_column :record_rule, String }
    alter_table(:products) { add_column :mixed_keeps_h, Float } # how long a mix is good, by the label
  end

  down { raise Sequel::Error, "going back would lose data" }
end
