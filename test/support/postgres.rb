# frozen_string_literal: true

require "etc"
require "open3"
require "tmpdir"

module Thistle
  # A PostgreSQL server with PostGIS of the test's own, in a folder that goes with it; nil where Debian's packages are
  # not installed.
  class Postgres
    attr_reader :url

    def self.programs = Dir["/usr/lib/postgresql/*/bin"].max_by { |folder| folder[/\d+/].to_i }

    def self.start
      new if programs && Dir["/usr/share/postgresql/*/extension/postgis.control"].any?
    end

    def initialize
      @folder = Dir.mktmpdir("thistle-pg")
      FileUtils.chmod(0o755, @folder)
      FileUtils.chown(user, nil, @folder) if root?
      run "initdb", "-D", "#{@folder}/data", "-U", "thistle", "--auth=trust", "--no-sync"
      run "pg_ctl", "-D", "#{@folder}/data", "-w", "-l", "#{@folder}/log", "-o",
          "-c listen_addresses='' -k #{@folder} -c fsync=off", "start"
      run "createdb", "-h", @folder, "-U", "thistle", "network"
      @url = "postgres:///network?host=#{@folder}&user=thistle"
    end

    def stop
      run "pg_ctl", "-D", "#{@folder}/data", "-m", "immediate", "-w", "stop"
    ensure
      FileUtils.rm_rf(@folder)
    end

    private

    def root? = Process.uid.zero?
    def user = "postgres"

    # A server never runs as root.
    def run(program, *words)
      command = [*(["runuser", "-u", user, "--"] if root?), "#{self.class.programs}/#{program}", *words]
      said, status = Open3.capture2e(*command, chdir: @folder)
      raise "#{program}: #{said}" unless status.success?
    end
  end
end
