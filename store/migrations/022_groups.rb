# frozen_string_literal: true

# A name may be that of a group that is handled alike (knowledge/groups.yml); plant_key is the likeliest of it.
Sequel.migration do
  change do
    alter_table(:observations) { add_column :group_key, String }
    alter_table(:patches) { add_column :group_key, String }
  end
end
