# frozen_string_literal: true

# A new mail address waits for its letter; whoever works under another's licence says whose.
# Several groups may share a copy: each has its own shelf, tools, seed and people. An account is one person of each
# group on whose ground it has a role.
Sequel.migration do
  of_group = %i[people products kit_items seed_lots calibrations]

  up do
    create_table(:groups) do
      primary_key :id
      String :name, null: false, unique: true
      DateTime :created_at, null: false
    end
    self[:groups].insert(id: 1, name: "the first group", created_at: Time.now.utc)

    [:properties, *of_group].each do |table|
      alter_table(table) { add_column :group_id, Integer, null: false, default: 1 }
    end
    of_group.each { |table| add_index table, :group_id }

    alter_table(:people) { add_column :account_id, Integer }
    self[:accounts].exclude(person_id: nil).select_map(%i[id person_id]).each do |account_id, id|
      self[:people].where(id:).update(account_id:)
    end
    add_index :people, %i[account_id group_id], unique: true
    alter_table(:accounts) { drop_foreign_key :person_id }

    alter_table(:treatments) { add_column :supervisor, String } # under whose licence it was applied
    create_table(:account_login_change_keys) do
      foreign_key :id, :accounts, primary_key: true
      String :key, null: false
      String :login, null: false
      DateTime :deadline, null: false
    end

    names = self[:person_names].all
    drop_table(:person_names)
    create_table(:person_names) do
      String :name, null: false
      Integer :group_id, null: false, default: 1
      foreign_key :person_id, :people, null: false, on_delete: :cascade, index: true
      primary_key %i[group_id name]
    end
    names.each { |row| self[:person_names].insert(row) }
  end
end
