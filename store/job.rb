# frozen_string_literal: true

require "securerandom"

module Thistle
  module Store
    # Model: long work and how far it is, kept in the file: whichever process is asked can answer, and work whose
    # process is gone is known to be lost. Work belongs to whoever holds the row's token: every slice and the end ask
    # for it, so that what was given up writes nothing more.
    class Job < Sequel::Model(:jobs)
      # The job was given up by somebody who took it for lost.
      class GivenUp < StandardError; end

      QUIET = 300 # seconds without a sign of life after which it is given up
      LOST = "The server stopped before it was done. What was there before is as it was; ask again."
      AT_ONCE = 2 # of all processes; the rest wait, in the order in which they were asked for
      WAITING = 20 # at most
      CROWD = "#{WAITING} long pieces of work wait already. Try again in a few minutes.".freeze
      LOOK = 0.2 # seconds between looks whether it is one's turn

      class << self
        # Seconds of this machine since it started, without those that it slept: nobody sets this clock, and a laptop
        # that was shut for an hour has not been quiet for one.
        def clock = Process.clock_gettime(Process::CLOCK_MONOTONIC)

        # Which run of the machine the clock counts within; "" where the system does not say.
        def boot
          @boot ||= File.read("/proc/sys/kernel/random/boot_id").strip
        rescue SystemCallError
          @boot = ""
        end

        # Begins to keep record of work on something. Where a status says that it is being worked on, begin both in one
        # transaction, so that nobody takes it for lost. Raises BadInput when too many wait, unless it must be done.
        def start(kind, subject, total: 0, must: false)
          raise Core::BadInput.new(CROWD, field: :base) if !must && under_way.count(&:waiting?) >= WAITING

          create(kind:, subject_id: subject.id, total:, pid: Process.pid, boot:, beat: clock,
                 token: SecureRandom.hex(8)).tap(&:own)
        end

        # Those that run or wait, in their order.
        def under_way = where(status: "running").order(:id).all.reject(&:lost?)

        # Work of a kind that is lost is given up; the block is told of which record, in the same transaction. all: at
        # start, when no work of this process can be running.
        def recover(kind, all: false)
          where(kind:, status: "running").all.each do |job|
            next unless job.lost? || (all && job.pid == Process.pid)

            db.transaction { job.give_up && yield(job.subject_id) }
          end
        end

        # The last one of a kind for a record.
        def of(kind, subject) = where(kind:, subject_id: subject.id).reverse(:id).first
      end

      # Whoever started it keeps its token; a row that is only read never acts.
      def own = @token = token

      # Does the work on a thread of its own, when its turn comes. The block is given the job, writes within #hold and
      # tells it how far it is (#at). What goes wrong is kept, and given to `failed` as a sentence.
      def later(failed: nil, &work)
        asked_by, dates = Acting.account_id, Core::Dates.first
        Thread.new do
          sleep(LOOK) && beat_on until turn? # whoever waits for a turn is not lost
          Acting.as(asked_by) { Core::Dates.written(dates) { now(failed:, &work) } }
        rescue GivenUp
          self
        end
        self
      end

      # The same while the caller waits.
      def now(failed: nil)
        mine(begun: Job.clock)
        yield self
        mine(status: "done", done: total, token: nil)
        self
      rescue GivenUp # whoever gave it up has cleared away what it had done
        self
      rescue StandardError => e
        warn "#{kind} #{subject_id}: #{e.class}: #{e.message}", *e.backtrace.first(5) unless e.is_a?(Core::BadInput)
        fail_with(e.is_a?(Core::BadInput) ? e.message : "Something went wrong on our side (#{e.class}). " \
          "Nothing was changed.", failed)
        self
      end

      # One transaction of its work, only while it is still this one's. Raises GivenUp.
      def hold
        db.transaction do
          mine(beat: Job.clock)
          yield
        end
      end

      # So many are done. Raises GivenUp.
      def at(count) = mine(done: [count, total].min, beat: Job.clock)

      # Gives up work of another that is lost: from here on it writes nothing. True for the one of those who try.
      def give_up
        Job.where(id:, status: "running", token:).update(status: "failed", fault: LOST, token: nil) == 1
      end

      def running? = status == "running"
      def lost? = running? && (boot != Job.boot || !alive? || quiet?)
      def waiting? = running? && begun.nil?
      # Since it began; 0 while it waits.
      def seconds = begun ? Job.clock - begun : 0

      # How many are worked on or waited for before this one.
      def ahead = Job.under_way.count { |one| one.id < id || one.begun }

      private

      # Writes to the row while it is one's own. Raises GivenUp.
      def mine(**columns)
        return if @token && Job.where(id:, status: "running", token: @token).update(columns) == 1

        raise GivenUp
      end

      # A sign of life, now and then.
      def beat_on
        return if @beaten && Job.clock - @beaten < QUIET / 10

        mine(beat: @beaten = Job.clock)
      end

      # What the work stands for is put right first: a stop between the two leaves a job that is lost, not one that is
      # over.
      def fail_with(words, failed)
        mine(beat: Job.clock)
        failed&.call(words)
        mine(status: "failed", fault: words, token: nil)
      rescue GivenUp
        nil
      end

      # Is there a place, and nobody before? Then it is taken, in one step.
      def turn?
        return false unless next?(Job.under_way)

        db.transaction { next?(Job.under_way) && mine(begun: Job.clock).nil? }
      end

      def next?(others)
        others.count(&:begun) < AT_ONCE && others.reject(&:begun).first&.id == id
      end

      def quiet? = !(Job.clock - beat).between?(0, QUIET)

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
