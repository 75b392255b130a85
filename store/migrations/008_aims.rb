# frozen_string_literal: true

# What a patch's ground is for: nil where nobody said.
Sequel.migration do
  up { alter_table(:patches) { add_column :aim, String } }

  down { raise Sequel::Error, "going back would lose data" }
end
