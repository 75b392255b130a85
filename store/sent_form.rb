# frozen_string_literal: true

module Thistle
  module Store
    # Model: a form that was sent, by its key, and where that led. Of several that come with one key (a second tap, a
    # reload, a line that broke before the answer came) one is worked on and the others are led where it led.
    class SentForm < Sequel::Model(:sent_forms)
      unrestrict_primary_key

      LONG = 120 # seconds after which one without an end is taken for cut off
      KEPT = 2 # days
      LOOK = 0.1 # seconds

      # nil for whoever may do it; else its first sender's row.
      def self.claim(key)
        mine = { pid: Process.pid, since: Job.clock, boot: Job.boot }
        db.transaction do
          known = self[key]
          next known unless known.nil? || known.cut_off?

          known ? known.update(mine) : create(key:, **mine)
          nil
        end
      end

      # Where the first leads, once it is done: a path. nil when it was refused or does not end within so many seconds.
      def self.place(key, seconds)
        until_when = Job.clock + seconds
        sleep LOOK until (found = self[key]).nil? || found.place || Job.clock > until_when
        found&.place
      end

      # It was done, and leads there.
      def self.settle(key, place) = where(key:).update(place:)

      # It was refused: with the same key it may be sent again.
      def self.release(key) = where(key:).delete

      def self.sweep = where { created_at < Time.now.utc - (KEPT * 86_400) }.delete

      def cut_off? = place.nil? && (boot != Job.boot || !(Job.clock - since).between?(0, LONG))
    end
  end
end
