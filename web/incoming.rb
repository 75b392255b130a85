# frozen_string_literal: true

require "fileutils"
require "tmpdir"

module Thistle
  module Web
    # Uploads on their way in, and files on their way out, lie in a folder of ours beside the data, so that what a
    # killed process left is known and swept; elsewhere only while the data's disk is full.
    module Incoming
      LEFT = 3600 # seconds after which nothing is on its way any more
      WANTED = 128 * 1024 * 1024 # bytes: more than the largest request
      ELSEWHERE = ["/tmp", "/dev/shm"].freeze

      module_function

      # From now on temporary files of this process and its forks lie in that folder; what was left there goes.
      def into(data)
        @folder = File.join(data, "incoming")
        FileUtils.mkdir_p(@folder, mode: 0o700)
        settle
        sweep
      end

      # Where there is room: beside the data, or else where there is any, so that a full disk is said by a page and a
      # file still goes out.
      def settle
        return unless @folder

        place = [@folder, *ELSEWHERE].find { |folder| File.directory?(folder) && Store::Disk.room(folder) > WANTED }
        place ||= @folder
        ENV["TMPDIR"] = place unless ENV["TMPDIR"] == place
      end

      # Takes away what lies there for longer than an upload takes.
      def sweep(now = Time.now)
        return unless @folder

        Dir[File.join(@folder, "*")].grep_v(/\.place\z/).each do |path|
          FileUtils.rm_rf(path) if now - File.mtime(path) > LEFT
        rescue Errno::ENOENT
          nil # its own process was quicker
        end
      end
    end
  end
end
