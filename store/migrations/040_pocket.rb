# frozen_string_literal: true

# Phones that carry records along, and what each of them sent: a record comes with a key of the phone's making, and is
# done once.
Sequel.migration do
  change do
    create_table(:phones) do
      primary_key :id
      String :digest, null: false, unique: true
      Integer :account_id, null: false # 0: nobody signs in here
      String :told # which browser it is
      DateTime :seen_at, null: false
      DateTime :cut_off_at
      DateTime :created_at, null: false
      index :account_id
    end

    create_table(:held_records) do
      String :key, primary_key: true
      Integer :account_id, null: false
      foreign_key :phone_id, :phones, null: false, index: true
      String :route, null: false
      String :place # where it led, a path
      DateTime :made_at # by the phone's clock, put right
      Integer :clock_off # seconds that the phone's clock was ahead
      DateTime :held_at, null: false
    end
  end
end
