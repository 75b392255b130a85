# frozen_string_literal: true

# A row of a file that somebody put right keeps what was read: {"properties", "geometry"} as JSON. Rows may be past
# work, checks and plantings, which know the file that they came in.
Sequel.migration do
  change do
    alter_table(:arrival_rows) do
      add_column :was, String, text: true
      add_column :kind, String, null: false, default: "patch"
    end
    alter_table(:treatments) { add_foreign_key :arrival_id, :arrivals, on_delete: :set_null, index: true }
    alter_table(:checks) { add_foreign_key :arrival_id, :arrivals, on_delete: :set_null, index: true }
    alter_table(:plantings) { add_foreign_key :arrival_id, :arrivals, on_delete: :set_null, index: true }
  end
end
