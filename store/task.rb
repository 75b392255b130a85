# frozen_string_literal: true

module Thistle
  module Store
    # Something to come back for.
    class Task < Sequel::Model(:tasks)
      many_to_one :patch, class: "Thistle::Store::Patch"
      many_to_one :treatment, class: "Thistle::Store::Treatment"

      KINDS = { "check" => "Check", "treat" => "Treat", "report" => "Ask" }.freeze

      dataset_module do
        def undone = where(Sequel[:tasks][:done_on] => nil)

        # Open tasks of live patches up to a day, soonest first, with what a list needs: one query.
        def due(through:, limit: nil)
          where(Sequel[:tasks][:done_on] => nil).where { Sequel[:tasks][:due_on] <= through }
                                                .join(:patches, { id: :patch_id, deleted_at: nil }, table_alias: :p)
                                                .select_all(:tasks).select_append(:code, :plant_key, :property_id, :state)
                                                .order(:due_on, Sequel[:tasks][:id]).limit(limit)
        end
      end

      # Moves open tasks that wait for an event to when it is now expected; once it has happened, it has.
      def self.follow_events(properties, today)
        waiting = undone.where(happened_on: nil).exclude(Sequel[:tasks][:event] => nil)
                        .join(:patches, { id: :patch_id, deleted_at: nil }, table_alias: :p).select_all(:tasks).select_append(:property_id).all
        by_id = properties.to_h { |property| [property.id, property] }
        known = {}
        db.transaction do
          waiting.each do |task|
            site = by_id[task[:property_id]]&.site(today) or next
            task.follow(known[[site, task.event, task.since_on]] ||= task.awaited.resolve(site, task.since_on))
          end
        end
      end

      # What it waits for, or nil.
      def awaited = event && Core::Season::Event.read(JSON.parse(event))

      # Takes an Outcome in.
      def follow(outcome)
        due = outcome.date ? outcome.date + awaited.after : due_on
        happened = outcome.happened? ? outcome.date : nil
        return if due == due_on && happened == happened_on

        this.update(due_on: due, happened_on: happened)
        refresh
      end
    end
  end
end
