# frozen_string_literal: true

require "fileutils"

module Thistle
  module Store
    # Process: a copy of everything each day, beside the data and, where a folder is named, elsewhere too. A copy bears
    # its name only once it was read back; only then do older ones go, and the newest never does, whatever the calendar
    # says.
    class DailyCopies
      KEPT_DAYS = 14 # unless a setting says otherwise
      LATE = 36 # hours after which a missing copy is said
      DAYS, ELSEWHERE, FAULT = "keep_copies_days", "copies_elsewhere", "copies_fault"

      def self.kept_days = Integer(Setting.read(DAYS) || KEPT_DAYS, exception: false) || KEPT_DAYS

      def initialize(folder = File.dirname(Database.path), now: Time.now)
        @folder, @now = folder, now
        @copies = File.join(folder, Backup::COPIES)
        @days = self.class.kept_days
      end

      # Has today's made by a process of its own, so that nobody waits; its id, or nil when there is nothing to do. Ask
      # again within the hour: one that failed is tried again.
      def make_apart
        return clear_out && nil if @days.zero?
        return if File.exist?(path) && fault.nil?

        command = [RbConfig.ruby, "#{ROOT}/bin/thistle", "backup", "--data", @folder, "--daily"]
        Process.detach(Process.spawn(*command, out: File::NULL, err: File::NULL)).pid
      end

      # Makes it now. What went wrong is kept for those who look, and raised (Refused).
      def make
        Backup.new(@folder).write(path) unless File.exist?(path)
        clear_out
        put_elsewhere
        Setting.where(key: FAULT).delete
      rescue Backup::Refused => e
        note(e.message)
        raise
      end

      # What is wrong with the copies, in a sentence; nil when they are as they should be.
      def said
        return if @days.zero?
        return "Today’s copy of the data did not come about: #{fault}" if fault
        return unless newest # new data has none for a minute

        hours = (@now - File.mtime(newest)) / 3600
        "The last copy of the data is #{(hours / 24).round} days old." if hours > LATE
      end

      # The newest copy's path; nil without one.
      def newest = all.last

      private

      def path = File.join(@copies, "daily-#{@now.strftime("%Y-%m-%d")}.zip")
      def all = Dir[File.join(@copies, "daily-*.zip")].sort_by { |copy| File.mtime(copy) }
      def fault = Setting.read(FAULT)

      def clear_out
        before = @now - (@days * 86_400)
        all[0...-1].each { |copy| FileUtils.rm_f(copy) if File.mtime(copy) < before }
      end

      # Another disk, a share: by its own name while it is on its way, and compared byte by byte.
      def put_elsewhere
        folder = Setting.read(ELSEWHERE) or return
        there = File.join(folder, File.basename(path))
        FileUtils.cp(path, "#{there}.part")
        refuse folder, "what arrived is not what was sent" unless FileUtils.identical?(path, "#{there}.part")
        File.rename("#{there}.part", there)
      rescue SystemCallError => e
        refuse folder, e.message
      end

      def refuse(folder, why) = raise(Backup::Refused, "The copy could not be put into #{folder}: #{why}.")

      # A disk that is full may hold no note either: then the age of the newest tells.
      def note(words)
        Setting.write(FAULT, words)
      rescue Sequel::Error
        nil
      end
    end
  end
end
