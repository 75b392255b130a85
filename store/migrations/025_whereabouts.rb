# frozen_string_literal: true

# Which country, and which state or province of it, a property lies in.
Sequel.migration do
  change do
    alter_table(:properties) do
      add_column :country, String
      add_column :part, String
    end
  end
end
