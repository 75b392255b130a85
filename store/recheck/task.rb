# frozen_string_literal: true

module Thistle
  module Store
    # Model: something to come back for.
    class Task < Sequel::Model(:tasks)
      many_to_one :patch, class: "Thistle::Store::Patch"
      many_to_one :treatment, class: "Thistle::Store::Treatment"

      # What is asked: a look at the invader, work, a specialist's answer, care of what was planted.
      KINDS = { "check" => "Check", "treat" => "Treat", "report" => "Ask", "planting" => "Planting" }.freeze

      dataset_module do
        def by_hand = where(key: nil, treatment_id: nil, course_id: nil, check_id: nil)
        def of_plantings(patch_ids) = where(patch_id: patch_ids, kind: "planting").exclude(key: nil)
        def undone = where(Sequel[:tasks][:done_on] => nil, Sequel[:tasks][:dropped_at] => nil)

        # Open tasks of live patches up to a day, of properties that are not put away, soonest first, with what a list
        # needs: one query. Of looks that one piece of work asked for and that are all late, the first stands for the
        # rest: one look makes them all.
        def due(through:, limit: nil)
          undone.where { Sequel[:tasks][:due_on] <= through }.exclude(told_before)
                .join(:patches, { id: :patch_id, deleted_at: nil }, table_alias: :p)
                .where(Sequel[:p][:property_id] => Property.kept.select(:id))
                .select_all(:tasks).select_append(:code, :plant_key, :group_key, :property_id, :state)
                .order(:due_on, Sequel[:tasks][:id]).limit(limit)
        end

        # Is it late, and a look of the same work later still?
        def told_before
          earlier, today = Sequel[:earlier], Setting.today
          late = (Sequel[:tasks][:due_on] < today) & { Sequel[:tasks][:kind] => "check" }
          alike = %i[patch_id treatment_id].to_h { |column| [earlier[column], Sequel[:tasks][column]] }
          same = { **alike, earlier[:kind] => "check", earlier[:done_on] => nil, earlier[:dropped_at] => nil }
          others = model.db[Sequel.as(:tasks, :earlier)].where(same).where(earlier[:due_on] < Sequel[:tasks][:due_on])
          late & others.select(1).exists
        end
      end

      # Moves open tasks that wait for an event to when it is now expected; once it has happened, it has. Called when
      # the weather may have told something new: at start, on a new day, when weather or a sighting comes in. Writes
      # what moved.
      def self.follow_weather(properties, today)
        by_id = properties.to_h { |property| [property.id, property] }
        known = {}
        waiting(by_id.keys).each do |task|
          site = by_id[task[:property_id]].site(today)
          task.follow(known[[site, task.event, task.since_on]] ||= task.awaited.resolve(site, task.since_on))
        end
      end

      def self.waiting(property_ids)
        undone.where(happened_on: nil).exclude(Sequel[:tasks][:event] => nil)
              .join(:patches, { id: :patch_id, deleted_at: nil, property_id: property_ids }, table_alias: :p)
              .select_all(:tasks).select_append(:property_id).all
      end
      private_class_method :waiting

      def open? = done_on.nil? && dropped_at.nil?

      # Does a person's word make it or take it back? Of what a person asked for, and of care for what was planted.
      def by_word? = kind == "planting" || (key.nil? && treatment_id.nil? && course_id.nil? && check_id.nil?)

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
