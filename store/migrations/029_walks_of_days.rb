# frozen_string_literal: true

# Ground looked over on the walk of a work day names the day; until now only its note said so.
Sequel.migration do
  up do
    alter_table(:searches) do
      add_foreign_key :work_day_id, :work_days, on_delete: :set_null, index: true
    end
    day = from(:work_days).where(Sequel[:work_days][:property_id] => Sequel[:searches][:property_id],
                                 Sequel[:work_days][:held_on] => Sequel[:searches][:searched_on]).select(:id).limit(1)
    from(:searches).where(note: "On the walk of the work day.").update(work_day_id: day)
  end

  down do
    alter_table(:searches) { drop_foreign_key :work_day_id }
  end
end
