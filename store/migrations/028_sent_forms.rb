# frozen_string_literal: true

# Forms that were sent, by the key that each page gives its own: sent twice, they count once.
Sequel.migration do
  change do
    create_table(:sent_forms) do
      String :key, primary_key: true
      String :place # where the first was sent on to; nil while it is worked on
      Integer :pid, null: false
      Float :since, null: false # s of Job.clock
      String :boot, null: false
      DateTime :created_at, null: false
    end
  end
end
