# frozen_string_literal: true

module Thistle
  module Store
    # Long work and how far it is, kept in the file: whichever process is asked can answer, and work whose process is gone
    # is known to be lost.
    class Job < Sequel::Model(:jobs)
      QUIET = 300 # seconds without a sign of life after which it is given up
      LOST = "The server stopped before it was done. What was there before is as it was; ask again."
      RUNNING = Mutex.new # one at a time in this process

      class << self
        # Does work on a thread of its own. The block is given the job and tells it how far it is (Job#at). What goes wrong is
        # kept, and given to `failed` as a sentence.
        def later(kind, subject, total: 0, failed: nil, &work)
          job = start(kind, subject, total)
          Thread.new { RUNNING.synchronize { job.perform(failed, &work) } }
          job
        end

        # The same while the caller waits.
        def now(kind, subject, total: 0, failed: nil, &work) = start(kind, subject, total).tap { |job| job.perform(failed, &work) }

        # The last one of a kind for a record.
        def of(kind, subject) = where(kind:, subject_id: subject.id).reverse(:id).first

        # Running jobs whose process is gone.
        def lost = where(status: "running").all.select(&:lost?)

        private

        def start(kind, subject, total)
          create(kind:, subject_id: subject.id, total:, pid: Process.pid, beat_at: Time.now.utc)
        end
      end

      # So many are done.
      def at(count) = this.update(done: [count, total].min, beat_at: Time.now.utc)

      def perform(failed)
        yield self
        this.update(status: "done", done: total)
      rescue StandardError => e
        warn "#{kind} #{subject_id}: #{e.class}: #{e.message}", *e.backtrace.first(5) unless e.is_a?(Core::BadInput)
        fail_with(e.is_a?(Core::BadInput) ? e.message : "Something went wrong on our side (#{e.class}). Nothing was changed.", failed)
      end

      def fail_with(words, failed = nil)
        this.update(status: "failed", fault: words)
        failed&.call(words)
      end

      def running? = status == "running"
      def lost? = running? && (!alive? || Time.now.utc - beat_at > QUIET)
      def seconds = Time.now.utc - created_at

      private

      def alive?
        Process.kill(0, pid)
        true
      rescue Errno::ESRCH
        false
      rescue Errno::EPERM
        true
      end
    end
  end
end
