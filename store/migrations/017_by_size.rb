# frozen_string_literal: true

# Stems by thickness, where somebody counted them so: treated, and alive at a look. JSON, {size: number}.
Sequel.migration do
  up do
    alter_table(:treatments) { add_column :stems_by_size, String, text: true }
    alter_table(:checks) { add_column :alive_by_size, String, text: true }
  end

  down { raise Sequel::Error, "going back would lose data" }
end
