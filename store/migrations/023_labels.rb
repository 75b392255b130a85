# frozen_string_literal: true

# What a label says of its weight; how much of a dry product work took.
Sequel.migration do
  change do
    alter_table(:products) do
      add_column :density, Float # kg on a litre
      add_column :counted_on, Date # on the clock of who counted; nil for counts of before
    end
    alter_table(:treatments) do
      add_column :product_g, Float
      add_column :second_product_g, Float
    end
  end
end
