# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Tables
        # What belongs to the group, not to one property: rows go off its list, and come back.
        module GroupList
          def act_off(rows) = rows.each { |row| row.update(deleted_at: Time.now.utc) }.size
          def undo(key) = key == "off" ? "back/#{ticked.join("-")}" : nil
          def back(ids) = dataset.model.exclude(deleted_at: nil).where(id: ids).update(deleted_at: nil)
        end
      end
    end
  end
end
