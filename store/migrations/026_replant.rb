# frozen_string_literal: true

# Hard seed, where seed and stock come from; how a plan is sown; how many plants went in where fewer did than planned.
Sequel.migration do
  change do
    alter_table(:seed_lots) do
      add_column :dormant, Float
      add_column :origin, String
      add_column :origin_region, String
      add_column :supplier, String
    end
    alter_table(:planting_plans) do
      add_column :sowing, String, text: true, null: false, default: "{}"
    end
    alter_table(:plantings) do
      add_column :planted_count, Integer
      add_column :origin, String
      add_column :supplier, String
    end
  end
end
