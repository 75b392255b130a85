# frozen_string_literal: true

require "fileutils"

module Thistle
  module Store
    # Process: photographs that come from a phone piece by piece, beside the database, until the record that they belong
    # to comes. Each account has its own.
    class Pieces
      KEY = /\A\h{8}-\h{4}-7\h{3}-[89ab]\h{3}-\h{12}\.\d{1,2}\z/ # the record's key, and which of its files
      MOST = 24 * 1024 * 1024 # bytes of a file
      ALL = 400 * 1024 * 1024 # bytes of all that wait
      KEPT = 14 * 86_400 # seconds

      def initialize(account_id)
        @folder = File.join(File.dirname(Database.path), "pieces", account_id.to_i.to_s)
      end

      def path(key) = KEY.match?(key.to_s.scrub) ? File.join(@folder, key) : nil

      # Bytes of a file that are here.
      def have(key) = path(key)&.then { |file| File.size?(file) } || 0

      # Adds bytes at a place; how many there are now. What does not follow on is left out: the phone asks how far it
      # got, and goes on from there. Raises Core::BadInput where it is too much.
      def add(key, from, bytes)
        file = path(key) or raise Core::BadInput.new("That is no key of a file.", field: :key)
        raise Core::BadInput.new("The photograph is too large.", field: :key) if from + bytes.bytesize > MOST

        FileUtils.mkdir_p(@folder, mode: 0o700)
        File.open(file, File::RDWR | File::CREAT | File::BINARY, 0o600) do |io|
          io.flock(File::LOCK_EX)
          next unless io.size == from
          raise Core::BadInput.new("Too many photographs wait here.", field: :key) if waiting + bytes.bytesize > ALL

          io.seek(0, IO::SEEK_END)
          io.write(bytes)
          io.fsync
        end
        have(key)
      end

      def drop(keys) = keys.filter_map { |key| path(key) }.each { |file| FileUtils.rm_f(file) }

      # What nobody came back for.
      def self.sweep
        Dir[File.join(File.dirname(Database.path), "pieces", "*", "*")].each do |file|
          FileUtils.rm_f(file) if File.mtime(file) < Time.now - KEPT
        rescue Errno::ENOENT
          next # another was quicker
        end
      end

      private

      def waiting = Dir[File.join(@folder, "*")].sum { |file| File.size?(file) || 0 }
    end
  end
end
