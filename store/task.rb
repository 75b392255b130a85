# frozen_string_literal: true

module Thistle
  module Store
    # Something to come back for.
    class Task < Sequel::Model(:tasks)
      many_to_one :patch, class: "Thistle::Store::Patch"
      many_to_one :treatment, class: "Thistle::Store::Treatment"

      KINDS = { "check" => "Check", "treat" => "Treat", "report" => "Ask" }.freeze

      dataset_module do
        # Open tasks of live patches up to a day, soonest first, with what a list needs: one query.
        def due(through:, limit: nil)
          where(Sequel[:tasks][:done_on] => nil).where { Sequel[:tasks][:due_on] <= through }
                                                .join(:patches, { id: :patch_id, deleted_at: nil }, table_alias: :p)
                                                .select_all(:tasks).select_append(:code, :plant_key, :property_id, :state)
                                                .order(:due_on, Sequel[:tasks][:id]).limit(limit)
        end
      end

      # Moves open visits that wait for rain to when it fell, or is now expected.
      def self.follow_rain(properties, today)
        waiting = exclude(rain_mm: nil).where(done_on: nil).exclude(treatment_id: nil).eager(:treatment, :patch).all
        waiting.each do |task|
          property = properties.find { |p| p.id == task.patch.property_id } or next
          due = Core::Recheck::Returns.after_rain(property.site(today), task.treatment.done_on, task.rain_mm)
          task.update(due_on: due) unless due == task.due_on
        end
      end
    end
  end
end
