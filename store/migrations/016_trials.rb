# frozen_string_literal: true

# Two methods beside each other on one patch: which stem is for which, and what became of it.
Sequel.migration do
  up do
    create_table(:trials) do
      primary_key :id
      foreign_key :patch_id, :patches, null: false, on_delete: :cascade, index: true
      String :question, null: false
      String :first_method, null: false # keys of knowledge/methods
      String :first_how # what sets it apart: a strength, a month
      String :second_method, null: false
      String :second_how
      Integer :seed, null: false
      Date :begun_on, null: false
      Date :ended_on
      DateTime :deleted_at
      DateTime :created_at, null: false
    end
    create_table(:trial_stems) do
      primary_key :id
      foreign_key :trial_id, :trials, null: false, on_delete: :cascade
      Integer :number, null: false # on its tag
      Integer :arm, null: false # 0 or 1
      Date :given_on, null: false
      TrueClass :alive # null until it was counted
      Date :counted_on
      index %i[trial_id number], unique: true
    end
  end

  down { raise Sequel::Error, "going back would lose data" }
end
