# frozen_string_literal: true

# What a steward says otherwise than the country usually has it.
Sequel.migration do
  change do
    alter_table(:properties) do
      add_column :emergency_number, String
      add_column :paper, String
      add_column :grid, String
      add_column :poorly_drained, TrueClass # nil: nobody looked
      add_column :duties, String, text: true, null: false, default: "{}" # JSON: {plant key => what the law asks of it}
    end
  end
end
