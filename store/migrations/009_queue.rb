# frozen_string_literal: true

# When a long job's turn came: nil while it waits for it.
Sequel.migration do
  up { alter_table(:jobs) { add_column :begun_at, DateTime } }
  down { raise Sequel::Error, "going back would lose data" }
end
