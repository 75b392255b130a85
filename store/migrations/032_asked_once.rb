# frozen_string_literal: true

# What an import asks once: what comes first in its dates, which plants its names mean, whether what lies outside the
# boundary comes in.
Sequel.migration do
  change do
    alter_table(:arrivals) do
      add_column :days, String
      add_column :names, String, text: true, null: false, default: "{}"
      add_column :outside, String, null: false, default: "skip"
    end
  end
end
