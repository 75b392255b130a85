# frozen_string_literal: true

# Many hands: long work and how far it is, visits that say what they come from and what made them, records that can be
# corrected and taken back, the last number of a property's codes.
Sequel.migration do
  up do
    create_table(:jobs) do
      primary_key :id
      String :kind, null: false
      Integer :subject_id, null: false
      String :status, null: false, default: "running" # running, done, failed
      Integer :done, null: false, default: 0
      Integer :total, null: false, default: 0
      String :fault, text: true
      Integer :pid, null: false
      DateTime :beat_at, null: false
      DateTime :created_at, null: false
      index %i[kind subject_id]
    end

    alter_table(:tasks) do
      add_column :key, String # what asks for it: t12:fragments, k3:again, c5:s9; nil when a person did
      add_column :done_by, String # treatment:12, check:3, hand
      add_foreign_key :check_id, :checks, on_delete: :cascade
      add_column :dropped_at, DateTime
      add_column :person, String
      add_index %i[course_id], where: Sequel.lit("course_id IS NOT NULL")
    end

    alter_table(:course_steps) { add_column :said, String } # done or open, as a person says; nil follows the records

    %i[treatments checks observations plantings season_plans].each do |table|
      alter_table(table) { add_column :deleted_at, DateTime }
    end
    alter_table(:checks) { add_column :cover_before, Integer } # what the patch's cover was said to be
    alter_table(:observations) { add_index :seen_on }
    alter_table(:treatments) { add_index :done_on }
    alter_table(:checks) { add_index :checked_on }
    alter_table(:courses) { add_index :chosen_on }

    create_table(:amendments) do
      primary_key :id
      String :kind, null: false # treatment, check, observation, planting, plan
      Integer :record_id, null: false
      String :act, null: false # corrected, taken_back, brought_back
      String :was, text: true, null: false # JSON: the record before
      String :person, null: false
      String :reason, text: true
      DateTime :created_at, null: false
      index %i[kind record_id]
    end

    # Lists read these in their order, a page at a time.
    run "CREATE INDEX patch_codes ON patches (property_id, state, length(code), code) WHERE deleted_at IS NULL"
    run "CREATE INDEX patch_plants ON patches (plant_key, code) WHERE deleted_at IS NULL"

    alter_table(:properties) { add_column :last_number, Integer, null: false, default: 0 }
    from(:properties).select(:id, :prefix).each do |row|
      codes = from(:patches).where(property_id: row[:id]).where(Sequel.like(:code, "#{row[:prefix]}-%"))
                            .select_map(:code)
      last = codes.filter_map { |code| code[/-(\d{1,9})\z/, 1]&.to_i }.max || 0
      from(:properties).where(id: row[:id]).update(last_number: last)
    end

    # What a check asked for is known by its day; whatever else has no treatment and no course was asked for by a
    # person.
    run <<~SQL
      UPDATE tasks SET check_id = (SELECT MAX(k.id) FROM checks k WHERE k.patch_id = tasks.patch_id AND k.checked_on = tasks.due_on)
      WHERE kind = 'treat' AND treatment_id IS NULL AND course_id IS NULL AND reason LIKE 'Treat again: %'
    SQL
    run "UPDATE tasks SET key = 'k' || check_id || ':again' WHERE check_id IS NOT NULL"
    run "UPDATE course_steps SET said = 'done' WHERE done_on IS NOT NULL" # by whom is not known: it stays as it is
  end

  down { raise Sequel::Error, "going back would lose data" }
end
