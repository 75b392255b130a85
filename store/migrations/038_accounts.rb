# frozen_string_literal: true

# Who may sign in (accounts and what Rodauth keeps beside them), who may do what where (memberships, guest links), and
# who did what: a row of `trail` for every row that somebody adds, changes, takes back or brings back, written by
# triggers, so that nothing that writes can forget it. `acting()` is the account that asks (Store::Acting): NULL while
# nobody does (a start, a restored copy), and then nothing is noted.
Sequel.migration do
  up do
    create_table(:accounts) do
      primary_key :id
      Integer :status_id, null: false, default: 1 # Rodauth's: 1 invited, 2 open, 3 closed
      String :email, null: false
      String :name, null: false
      foreign_key :person_id, :people, on_delete: :set_null
      TrueClass :keeper, null: false, default: false
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
      DateTime :used_at
    end

    create_table(:comments) do
      primary_key :id
      foreign_key :property_id, :properties, null: false, index: true
      foreign_key :patch_id, :patches, index: true
      foreign_key :task_id, :tasks
      foreign_key :account_id, :accounts
      String :body, text: true, null: false
      TrueClass :for_staff, null: false, default: false
      String :mentions, null: false, default: "[]"
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

    own, of_patch = "ROW.property_id", "(SELECT property_id FROM patches WHERE id = ROW.patch_id)"
    by = ->(table, key, column = "property_id") { "(SELECT #{column} FROM #{table} WHERE id = ROW.#{key})" }
    patch_of = ->(inner) { "(SELECT property_id FROM patches WHERE id = #{inner})" }
    whose = {
      arrivals: own, changes: own, cleanings: own, gather_places: own, land_plans: own, layers: own, local_rules: own,
      memberships: own, guest_links: own, comments: own, patches: own, products_in_use: own, reports: own,
      rule_settings: own, searches: own, season_plans: own, sightings: own, weather_files: own, work_days: own,
      zones: own, properties: "ROW.id",
      checks: of_patch, courses: of_patch, observations: of_patch, pictures: of_patch, planting_plans: of_patch,
      plantings: of_patch, site_sheets: of_patch, tasks: of_patch, treatments: of_patch, trials: of_patch,
      waterings: of_patch,
      course_steps: patch_of[by["courses", "course_id", "patch_id"]],
      take_counts: patch_of[by["plantings", "planting_id", "patch_id"]],
      trial_stems: patch_of[by["trials", "trial_id", "patch_id"]],
      photos: by["reports", "report_id"], taps: by["work_days", "work_day_id"],
      amendments: "NULL", calibrations: "NULL", kept_searches: "NULL", kit_items: "NULL", label_versions: "NULL",
      people: "NULL", products: "NULL", seed_lots: "NULL", bundle_arrivals: "NULL", accounts: "NULL"
    }
    note = ->(act, table, row, property) do
      "INSERT INTO trail (at, account_id, act, kind, row_id, property_id) VALUES " \
        "(strftime('%Y-%m-%d %H:%M:%f', 'now'), acting(), #{act}, '#{table}', #{row}.id, " \
        "#{property.gsub("ROW", row)})"
    end
    # What follows from records by itself is nobody's act.
    derived = {
      patches: %i[state standing alive young first_counts parted_share zones_near water_m outline west east south north
                  lock_version updated_at closed_on slope_deg aspect_deg],
      properties: %i[season_version last_number], work_days: %i[answer lock_version updated_at],
      season_plans: %i[answer status fault], land_plans: %i[status fault said figures],
      arrivals: %i[status report done total], tasks: %i[due_on reason source since_on happened_on until_on]
    }
    added = { tasks: " AND NEW.person IS NOT NULL" } # visits that follow from a record are that record's

    gone = %i[deleted_at taken_back_at ended_at dropped_at]
    whose.each do |table, property|
      columns = from(table).columns
      told = columns - [:id] - derived.fetch(table, [])
      back = gone.find { |name| columns.include?(name) }
      act = if back
              "CASE WHEN OLD.#{back} IS NULL AND NEW.#{back} IS NOT NULL THEN 'took back' " \
                "WHEN OLD.#{back} IS NOT NULL AND NEW.#{back} IS NULL THEN 'brought back' ELSE 'changed' END"
            else
              "'changed'"
            end
      run "CREATE TRIGGER trail_#{table}_in AFTER INSERT ON #{table} WHEN acting() IS NOT NULL#{added[table]} BEGIN " \
          "#{note["'added'", table, "NEW", property]}; END"
      run "CREATE TRIGGER trail_#{table}_new AFTER UPDATE OF #{told.join(", ")} ON #{table} " \
          "WHEN acting() IS NOT NULL BEGIN #{note[act, table, "NEW", property]}; END"
      next if table == :tasks

      run "CREATE TRIGGER trail_#{table}_out AFTER DELETE ON #{table} WHEN acting() IS NOT NULL BEGIN " \
          "#{note["'removed'", table, "OLD", property]}; END"
    end

    # It only grows.
    %w[DELETE UPDATE].each do |verb|
      run "CREATE TRIGGER trail_kept_#{verb.downcase} BEFORE #{verb} ON trail WHEN acting() IS NOT NULL " \
          "BEGIN SELECT RAISE(ABORT, 'the trail only grows'); END"
    end
  end

  down { raise Sequel::Error, "going back would lose data" }
end
