# frozen_string_literal: true

require "sqlite3"

module Thistle
  # A restore in a process of its own that is killed with -9: before and after each call that touches the disk, or
  # after some time. And what stands in the folder then.
  class KilledRestore
    TOUCHES = %i[rename write copy_stream fsync step mkdir rmdir unlink delete].freeze
    TOUCHED = [File.singleton_class, IO.singleton_class, File, Dir.singleton_class, SQLite3::Backup].freeze

    def initialize(folder, copy)
      @folder, @copy = folder, copy
    end

    # Killed at the nth touch from the moment on that a method of Restore begins. Was it killed?
    def at(nth, from:)
      killed do
        count = nil
        TracePoint.new(:call, :c_call, :c_return) do |point|
          count ||= 0 if point.event == :call && point.method_id == from && point.self.is_a?(Store::Restore)
          next unless count && point.event != :call
          next unless TOUCHES.include?(point.method_id) && TOUCHED.include?(point.defined_class)

          Process.kill("KILL", Process.pid) if (count += 1) == nth
        end.enable
      end
    end

    # Killed after so many seconds. Was it?
    def after(seconds)
      killed do
        Thread.new { sleep(seconds) && Process.kill("KILL", Process.pid) }
      end
    end

    # [patches and their notes, {layer => SHA-256}]; raises unless the database is whole and every layer is there.
    def stands
      db = SQLite3::Database.new(File.join(@folder, "thistle.db"))
      raise "broken" unless db.get_first_value("PRAGMA integrity_check") == "ok"

      notes = db.execute("SELECT id, note FROM patches ORDER BY id")
      [notes, layers(db).transform_keys(&:first)]
    ensure
      db&.close
    end

    # Files beside those that belong: none after a sweep.
    def left_over
      db = SQLite3::Database.new(File.join(@folder, "thistle.db"))
      named = layers(db).keys.map(&:last)
      [*Dir.glob("**/thistle-work-*", base: @folder), *Dir.glob("**/*.part", base: @folder),
       *(Dir.children(File.join(@folder, "layers")) - named)]
    ensure
      db&.close
    end

    private

    def layers(db)
      db.execute("SELECT id, file FROM layers").to_h do |row|
        [row, Digest::SHA256.file(File.join(@folder, "layers", row.last)).hexdigest]
      end
    end

    def killed
      pid = fork do
        yield
        Store::Restore.new(@folder).call(@copy)
        exit! 0
      rescue StandardError => e
        warn e.full_message
        exit! 1
      end
      _, status = Process.wait2(pid)
      raise "The restore failed." if status.exited? && !status.success?

      status.signaled?
    end
  end
end
