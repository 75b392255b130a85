# frozen_string_literal: true

# What stands of a patch follows from its records, worked out when one of them changes.
Sequel.migration do
  up do
    alter_table(:patches) do
      add_column :standing, String, text: true # Core::Recheck::Standing::State of its last record, null for as mapped
      add_column :alive, Integer       # plants or stems that live by it; null where nobody counted any
      add_column :young, Integer       # seedlings and other young ones by it; null where nobody counted any
      add_column :first_counts, String # { plants, stems } as it was mapped, where its own columns say so no more
      add_column :parted_share, Float  # of the ground of what it was parted from
    end
    alter_table(:observations) { add_column :stems, Integer }
    alter_table(:checks) { add_index :treatment_id } # what is learned from one record more reads its patch's alone
  end

  down do
    alter_table(:checks) { drop_index :treatment_id }
    alter_table(:observations) { drop_column :stems }
    alter_table(:patches) { %i[standing alive young first_counts parted_share].each { |column| drop_column column } }
  end
end
