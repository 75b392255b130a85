# frozen_string_literal: true

# What a patch's ground is for, nil where nobody said; and plants beside stems: a shrub of forty stems is one plant; and
# whether seed had fallen.
Sequel.migration do
  up do
    alter_table(:patches) do
      add_column :aim, String
      add_column :plants, Integer
    end
    alter_table(:observations) { add_column :plants, Integer }
    alter_table(:treatments) do
      add_column :plants_done, Integer
      add_column :seed_fall, String
    end
    alter_table(:checks) { add_column :seed_fall, String }
  end

  down { raise Sequel::Error, "going back would lose data" }
end
