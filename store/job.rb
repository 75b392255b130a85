# frozen_string_literal: true

module Thistle
  module Store
    # Model: long work and how far it is, kept in the file: whichever process is asked can answer, and work whose
    # process is gone is known to be lost.
    class Job < Sequel::Model(:jobs)
      QUIET = 300 # seconds without a sign of life after which it is given up
      LOST = "The server stopped before it was done. What was there before is as it was; ask again."
      AT_ONCE = 2 # of all processes; the rest wait, in the order in which they were asked for
      WAITING = 20 # at most
      CROWD = "#{WAITING} long pieces of work wait already. Try again in a few minutes.".freeze
      LOOK = 0.2 # seconds between looks whether it is one's turn

      # Begins to keep record of work on something. Where a status says that it is being worked on, begin both in one
      # transaction, so that nobody takes it for lost. Raises BadInput when too many wait, unless it must be done.
      def self.start(kind, subject, total: 0, must: false)
        raise Core::BadInput.new(CROWD, field: :base) if !must && under_way.count(&:waiting?) >= WAITING

        create(kind:, subject_id: subject.id, total:, pid: Process.pid, beat_at: Time.now.utc)
      end

      # Those that run or wait, in their order.
      def self.under_way = where(status: "running").order(:id).all.reject(&:lost?)

      # The last one of a kind for a record.
      def self.of(kind, subject) = where(kind:, subject_id: subject.id).reverse(:id).first

      # Does the work on a thread of its own, when its turn comes. The block is given the job and tells it how far it is
      # (#at). What goes wrong is kept, and given to `failed` as a sentence.
      def later(failed: nil, &work)
        Thread.new do
          sleep(LOOK) && beat until turn? # whoever waits for a turn is not lost
          now(failed:, &work)
        end
        self
      end

      # The same while the caller waits.
      def now(failed: nil)
        this.update(begun_at: Time.now.utc)
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
      def waiting? = running? && begun_at.nil?
      # Since it began; 0 while it waits.
      def seconds = begun_at ? Time.now.utc - begun_at : 0

      # How many are worked on or waited for before this one.
      def ahead = Job.under_way.count { |one| one.id < id || one.begun_at }

      private

      # Is there a place, and nobody before? Then it is taken, in one step.
      def turn?
        return false unless next?(Job.under_way)

        db.transaction { next?(Job.under_way) && this.update(begun_at: Time.now.utc) == 1 }
      end

      def next?(others)
        others.count(&:begun_at) < AT_ONCE && others.reject(&:begun_at).first&.id == id
      end

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
