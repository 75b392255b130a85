# frozen_string_literal: true

require "fileutils"
require "securerandom"

module Thistle
  module Store
    # Process: a folder to lay things ready in. Its process holds a lock on it, which ends with the process, however it
    # ends; so one that is left over is known.
    module WorkFolder
      PREFIX = "thistle-work-"

      module_function

      # Makes one within `parent`, yields its path, and takes it away.
      def within(parent)
        path, lock = made(parent)
        yield path
      ensure
        FileUtils.rm_rf(path) if path
        lock&.close
      end

      # Yields the path of each that its process left behind, then takes it away.
      def left(parent)
        Dir.glob("#{PREFIX}*", base: parent).each do |name|
          path = File.join(parent, name)
          File.open(path) do |lock|
            next unless lock.flock(File::LOCK_EX | File::LOCK_NB)

            yield path if block_given?
            FileUtils.rm_rf(path)
          end
        rescue Errno::ENOENT
          nil # its own process was quicker
        end
      end

      # One that was swept between its making and its lock is made again.
      def made(parent)
        loop do
          path = File.join(parent, "#{PREFIX}#{SecureRandom.hex(6)}")
          Dir.mkdir(path, 0o700)
          lock = File.new(path)
          lock.flock(File::LOCK_EX)
          return [path, lock] if File.directory?(path)

          lock.close
        rescue Errno::ENOENT
          next
        end
      end
      private_class_method :made
    end
  end
end
