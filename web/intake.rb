# frozen_string_literal: true

module Thistle
  module Web
    # Takes arrivals in the background, one at a time, and knows how far each is. Rows written in an open transaction
    # are not seen by other connections, so the count is kept here.
    module Intake
      LOCK = Mutex.new
      DONE = {} # rubocop:disable Style/MutableConstant -- arrival id => rows done

      module_function

      def begin(arrival, seen_on:)
        arrival.update(status: "taking", done: 0)
        Thread.new do
          LOCK.synchronize { arrival.take(seen_on:) { |done| DONE[arrival.id] = done } }
        rescue StandardError => e
          warn "arrival #{arrival.id}: #{e.class}: #{e.message}", *e.backtrace.first(5)
        ensure
          DONE.delete(arrival.id)
        end
      end

      def done(arrival) = DONE.fetch(arrival.id, arrival.done)

      # Whatever was being taken when the server stopped was rolled back: say so.
      def recover
        Store::Arrival.where(status: "taking").update(status: "failed",
                                                      fault: "The server stopped while it was being taken. Nothing was taken; take it again.")
      end
    end
  end
end
