# frozen_string_literal: true

# A property that is put away stands in no list until it is brought back; its records stay.
Sequel.migration do
  change { alter_table(:properties) { add_column :put_away_at, Time } }
end
