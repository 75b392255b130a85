# frozen_string_literal: true

# When a long job's turn came: nil while it waits for it. Where a photograph looks, degrees from north.
Sequel.migration do
  up do
    alter_table(:jobs) { add_column :begun_at, DateTime }
    alter_table(:photos) { add_column :direction, Float }
  end

  down { raise Sequel::Error, "going back would lose data" }
end
