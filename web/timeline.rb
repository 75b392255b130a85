# frozen_string_literal: true

module Thistle
  module Web
    # Everything recorded on a property, newest first.
    class Timeline
      Row = Core::Value.define(:on, :kind, :patch, :text)
      SHOWN = 80

      def initialize(property)
        @property = property
      end

      def rows = @rows ||= (treatments + checks + observations + courses).sort_by { |row| [row.on, row.kind] }.reverse.first(SHOWN)

      # {state => number of patches}
      def states = @property.live_patches.group_and_count(:state).unordered.as_hash(:state, :count)

      def to_h
        { property: @property.name, states:, rows: rows.map { |row| { on: row.on, kind: row.kind, patch: row.patch.code, text: row.text } } }
      end

      private

      # Patches by id; one that was merged into another stands under its own id as that one, so that no record is lost.
      def patches
        @patches ||= begin
          live = @property.live_patches.as_hash(:id)
          into = @property.patches_dataset.exclude(merged_into_id: nil).select_hash(:id, :merged_into_id)
          stands = ->(id) { into.key?(id) ? stands.call(into[id]) : live[id] }
          live.merge(into.transform_values { |id| stands.call(id) }.compact)
        end
      end

      def treatments
        of(Store::Treatment, :done_on) do |t|
          amount = t.stems_done ? "#{t.stems_done} stems" : @property.measures.area(t.area_m2)
          [t.done_on, "work", "#{t.removal.name}: #{amount}, #{t.crew_size} people, #{t.hours.to_s.delete_suffix(".0")} h"]
        end
      end

      def checks
        of(Store::Check, :checked_on) { |c| [c.checked_on, "check", "#{c.resprouts} alive, #{c.missed} missed, #{c.seedlings} seedlings"] }
      end

      def observations
        of(Store::Observation, :seen_on) do |o|
          name = o.plant_key ? Core::Knowledge.shipped.plant(o.plant_key).name : "unknown plant"
          [o.seen_on, "seen", "#{name}, #{o.settled ? "settled" : "not settled"}"]
        end
      end

      def courses
        of(Store::Course, :chosen_on) do |c|
          advised = ". Advised was #{c.advised.name.downcase}: #{c.reason}" if c.otherwise?
          [c.chosen_on, "course", "On a course: #{c.removal.name.downcase}, #{c.person}#{advised}"]
        end
      end

      def of(model, date)
        model.where(patch_id: patches.keys).reverse(date).limit(SHOWN).map do |record|
          on, kind, text = yield record
          Row.new(on:, kind:, patch: patches.fetch(record.patch_id), text:)
        end
      end
    end
  end
end
