# frozen_string_literal: true

# What a work day feels like and what is drunk on it, as somebody typed it; own minutes of a stem at each station.
Sequel.migration do
  change do
    alter_table(:work_days) do
      add_column :felt_c, Float
      add_column :wbgt_c, Float
      add_column :drink_l_h, Float
      add_column :minutes, String, text: true, null: false, default: "{}"
    end
  end
end
