# frozen_string_literal: true

# A patch may be worked on against the hours of its day, on purpose: why is kept.
Sequel.migration do
  change do
    alter_table(:work_days) { add_column :despite, String, null: false, default: "{}", text: true } # {patch id: why}
  end
end
