# frozen_string_literal: true

module Thistle
  module Store
    # Model: small facts about this installation, by name.
    class Setting < Sequel::Model(:settings)
      unrestrict_primary_key

      def self.read(key) = self[key]&.value

      def self.write(key, value)
        dataset.insert_conflict(target: :key, update: { value: }).insert(key:, value:)
      end

      # Sets it unless it has that value already. Of several who ask at once, one is told that it did.
      def self.claim(key, value)
        other = Sequel[:settings][:value] !~ value
        dataset.insert_conflict(target: :key, update: { value: }, update_where: other).returning(:key)
               .insert(key:, value:).any?
      end

      # The day that the application takes for today: set for the demo, else of a Core::Season::Clock, else the
      # machine's.
      def self.today(clock = nil, now: Time.now.utc)
        fixed = read("today")
        return Date.iso8601(fixed) if fixed

        clock ? clock.date(now) : Date.today
      end
    end
  end
end
