# frozen_string_literal: true

# A job belongs to whoever holds its token, and its age is read from a clock that nobody can set.
Sequel.migration do
  up do
    from(:jobs).where(status: "running").update(status: "failed", fault: "The server stopped before it was done.")
    alter_table(:jobs) do
      add_column :token, String # taken away when it is given up
      add_column :boot, String # the machine's run that the two below count within
      add_column :beat, Float # s since then, at its last sign of life
      add_column :begun, Float # the same, when its turn came
      drop_column :beat_at
      drop_column :begun_at
    end
  end
  down do
    alter_table(:jobs) do
      add_column :beat_at, DateTime
      add_column :begun_at, DateTime
      %i[token boot beat begun].each { |column| drop_column column }
    end
  end
end
