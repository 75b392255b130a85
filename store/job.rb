# frozen_string_literal: true

module Thistle
  module Store
    # Model: long work and how far it is, kept in the file: whichever process is asked can answer, and work whose
    # process is gone is known to be lost.
    class Job < Sequel::Model(:jobs)
      QUIET = 300 # seconds without a sign of life after which it is given up
      LOST = "The server stopped before it was done. What was there before is as it was; ask again."
      RUNNING = Mutex.new # one at a time in this process
      TURN = 0.2 # seconds between looks whether it is one's turn

      # Begins to keep record of work on something. Where a status says that it is being worked on, begin both in one
      # transaction, so that nobody takes it for lost.
      def self.start(kind, subject, total: 0)
        create(kind:, subject_id: subject.id, total:, pid: Process.pid, beat_at: Time.now.utc)
      end

      # The last one of a kind for a record.
      def self.of(kind, subject) = where(kind:, subject_id: subject.id).reverse(:id).first

      # Does the work on a thread of its own. The block is given the job and tells it how far it is (#at). What goes
      # wrong is kept, and given to `failed` as a sentence.
      def later(failed: nil, &work)
        Thread.new do
          sleep(TURN) && beat until RUNNING.try_lock # whoever waits for a turn is not lost
          now(failed:, &work)
        ensure
          RUNNING.unlock if RUNNING.owned?
        end
        self
      end

      # The same while the caller waits.
      def now(failed: nil)
        yield self
        this.update(status: "done", done: total)
        self
      rescue StandardError => e
        warn "#{kind} #{subject_id}: #{e.class}: #{e.message}", *e.backtrace.first(5) unless e.is_a?(Core::BadInput)
        fail_with(e.is_a?(Core::BadInput) ? e.message : "Something went wrong on our side (#{e.class}). " \
          "Nothing was changed.", failed)
        self
      end

      # So many are done.
      def at(count) = this.update(done: [count, total].min, beat_at: Time.now.utc)

      # A sign of life, now and then.
      def beat
        return if @beaten && Time.now.utc - @beaten < QUIET / 10

        @beaten = Time.now.utc
        this.update(beat_at: @beaten)
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
