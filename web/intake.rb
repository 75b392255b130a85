# frozen_string_literal: true

module Thistle
  module Web
    # Looks over and takes arrivals in the background, one at a time, and knows how far each is. Rows written in an open
    # transaction are not seen by other connections, so the count is kept here.
    module Intake
      LOCK = Mutex.new
      DONE = {} # rubocop:disable Style/MutableConstant -- arrival id => rows done
      AT_ONCE = 2000 # rows that are looked over while the page waits

      module_function

      # The dry run: at once when it is short.
      def look(arrival, seen_on:)
        return arrival.dry_run(seen_on:) if arrival.total <= AT_ONCE

        arrival.update(status: "looking")
        start(arrival) { |progress| arrival.dry_run(seen_on:, &progress) }
      end

      def take(arrival, seen_on:)
        arrival.update(status: "taking", done: 0)
        start(arrival) { |progress| arrival.take(seen_on:, &progress) }
      end

      def start(arrival)
        Thread.new do
          LOCK.synchronize { yield ->(done) { DONE[arrival.id] = done } }
        rescue StandardError => e
          warn "arrival #{arrival.id}: #{e.class}: #{e.message}", *e.backtrace.first(5)
        ensure
          DONE.delete(arrival.id)
        end
      end
      private_class_method :start

      def done(arrival) = DONE.fetch(arrival.id, arrival.done)

      # Whatever was being taken when the server stopped was rolled back: say so.
      def recover
        Store::Arrival.where(status: "looking").update(status: "failed", fault: "The server stopped while it was looked over. Bring it in again.")
        Store::Arrival.where(status: "taking").update(status: "failed",
                                                      fault: "The server stopped while it was being taken. Nothing was taken; take it again.")
      end
    end
  end
end
