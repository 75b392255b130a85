# frozen_string_literal: true

# Which rows changed, the last change of each: what a mirror still has to take over. Triggers write here from the day on
# which the first mirror is made (Store::Mirror).
Sequel.migration do
  change do
    create_table(:row_changes) do
      primary_key :number, auto_increment: true
      String :name, null: false
      Integer :row_id, null: false
      unique %i[name row_id], on_conflict: :replace
    end
  end
end
