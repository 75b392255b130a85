# frozen_string_literal: true

# Who may sign in (accounts and what Rodauth keeps beside them), who may do what where (memberships, guest links), and
# who did what (trail; Store::TrailNotes writes it).
Sequel.migration do
  up do
    create_table(:accounts) do
      primary_key :id
      Integer :status_id, null: false, default: 2 # Rodauth's: 1 not verified, 2 open, 3 closed
      String :email, null: false
      String :name, null: false
      foreign_key :person_id, :people, on_delete: :set_null
      TrueClass :keeper, null: false, default: false
      TrueClass :weekly, null: false, default: false # a letter each week with what is new
      Integer :seen_id, null: false, default: 0 # the last row of the trail that they have read of
      DateTime :created_at, null: false
      DateTime :ended_at
      index :email, unique: true, where: { status_id: [1, 2] }
    end

    create_table(:memberships) do
      primary_key :id
      foreign_key :account_id, :accounts, null: false, index: true
      foreign_key :property_id, :properties, null: false, index: true
      String :role, null: false
      Date :until_on
      DateTime :created_at, null: false
      DateTime :ended_at
      index %i[account_id property_id role], unique: true, where: { ended_at: nil }
    end

    create_table(:guest_links) do
      primary_key :id
      String :digest, null: false, unique: true
      String :kind, null: false
      foreign_key :property_id, :properties, null: false, index: true
      Integer :record_id
      String :for_whom, null: false
      Date :until_on, null: false
      DateTime :created_at, null: false
      DateTime :ended_at
    end

    create_table(:comments) do
      primary_key :id
      foreign_key :property_id, :properties, null: false, index: true
      foreign_key :patch_id, :patches, index: true
      foreign_key :task_id, :tasks, on_delete: :set_null
      foreign_key :account_id, :accounts
      String :body, text: true, null: false
      TrueClass :for_staff, null: false, default: false
      String :mentions, null: false, default: "[]"
      DateTime :deleted_at
      DateTime :created_at, null: false
    end

    create_table(:permissions) do
      primary_key :id
      foreign_key :property_id, :properties, null: false, index: true
      foreign_key :account_id, :accounts
      String :person, null: false # who gave it
      Date :from_on, null: false
      Date :until_on, null: false
      TrueClass :herbicide, null: false
      String :note, text: true
      DateTime :deleted_at
      DateTime :created_at, null: false
    end

    create_table(:letters) do
      primary_key :id
      String :address, null: false
      String :subject, null: false
      String :body, text: true, null: false
      DateTime :sent_at
      String :fault
      DateTime :created_at, null: false
    end

    alter_table(:kept_searches) { add_column :account_id, Integer, null: false, default: 0 } # 0: this machine
    alter_table(:patches) { add_foreign_key :taken_by, :accounts, on_delete: :set_null, index: true }
    alter_table(:tasks) { add_foreign_key :account_id, :accounts, on_delete: :set_null, index: true }

    # What Rodauth keeps, by its own names.
    create_table(:account_password_hashes) do
      foreign_key :id, :accounts, primary_key: true
      String :password_hash, null: false
    end
    create_table(:account_login_failures) do
      foreign_key :id, :accounts, primary_key: true
      Integer :number, null: false, default: 1
    end
    create_table(:account_lockouts) do
      foreign_key :id, :accounts, primary_key: true
      String :key, null: false
      DateTime :deadline, null: false
      DateTime :email_last_sent
    end
    create_table(:account_password_reset_keys) do
      foreign_key :id, :accounts, primary_key: true
      String :key, null: false
      DateTime :deadline, null: false
      DateTime :email_last_sent, null: false, default: Sequel::CURRENT_TIMESTAMP
    end
    create_table(:account_remember_keys) do
      foreign_key :id, :accounts, primary_key: true
      String :key, null: false
      DateTime :deadline, null: false
    end
    create_table(:account_active_session_keys) do
      foreign_key :account_id, :accounts
      String :session_id
      Time :created_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      Time :last_use, null: false, default: Sequel::CURRENT_TIMESTAMP
      String :told
      primary_key %i[account_id session_id]
    end
    create_table(:account_otp_keys) do
      foreign_key :id, :accounts, primary_key: true
      String :key, null: false
      Integer :num_failures, null: false, default: 0
      Time :last_use, null: false, default: Sequel::CURRENT_TIMESTAMP
    end
    create_table(:account_recovery_codes) do
      foreign_key :id, :accounts
      String :code
      primary_key %i[id code]
    end
    create_table(:account_webauthn_user_ids) do
      foreign_key :id, :accounts, primary_key: true
      String :webauthn_id, null: false
    end
    create_table(:account_webauthn_keys) do
      foreign_key :account_id, :accounts
      String :webauthn_id
      String :public_key, null: false
      Integer :sign_count, null: false
      Time :last_use, null: false, default: Sequel::CURRENT_TIMESTAMP
      primary_key %i[account_id webauthn_id]
    end

    create_table(:trail) do
      primary_key :id
      DateTime :at, null: false
      Integer :account_id, null: false # 0: this machine, before there were accounts
      String :act, null: false
      String :kind, null: false
      Integer :row_id
      Integer :property_id
      String :said, text: true
      index %i[kind row_id]
      index %i[property_id id]
      index %i[account_id id]
    end
  end

  down { raise Sequel::Error, "going back would lose data" }
end
