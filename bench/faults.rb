# frozen_string_literal: true

# `rake bench faults`: kill -9 at random moments, a thousand times on one file: under four writers, and every tenth time
# in the middle of a restore. Says what was lost or left by half, and stops at the first.
require "tmpdir"
require_relative "../thistle"
require_relative "kills"
require_relative "killed_restore"

# Two copies of a land, put back in turn and killed at it: one of the two stands.
class Restores
  attr_reader :killed

  def initialize(folder)
    @folder, @killed = folder, 0
    @copies = %w[first second].map do |note|
      Thistle::Store::Patch.dataset.update(note:)
      File.join(folder, "#{note}.zip").tap { |path| Thistle::Store::Backup.new(folder).write(path) }
    end
    @twin = File.join(folder, "twin")
    @wanted = @copies.map do |copy|
      Thistle::Store::Restore.new(@twin).call(copy)
      twin(copy).stands
    end
  end

  # What is wrong afterwards, in a list.
  def round
    restore = twin(@copies.rotate!.first)
    @killed += 1 if restore.after(rand(0.005..0.2))
    wrong = @wanted.include?(restore.stands) ? [] : ["neither the old nor the new stands"]
    Thistle::Store::Restore.new(@twin).sweep
    FileUtils.rm_rf(File.join(@twin, "copies"))
    wrong + restore.left_over.map { |file| "left over: #{file}" }
  end

  private

  def twin(copy) = Thistle::KilledRestore.new(@twin, copy)
end

rounds = Integer(ENV.fetch("ROUNDS", "1000"))
Dir.mktmpdir("thistle") do |folder|
  Thistle::Web::Boot.call(folder)
  Thistle::Demo::Land.new.load
  restores = Restores.new(folder)
  kills = Thistle::Kills.new(Thistle::Store::Property.first.id)
  rounds.times do |n|
    wrong = (n % 10).zero? ? restores.round : kills.round
    abort "round #{n + 1}: #{wrong.join(", ")}" if wrong.any?
    next unless ((n + 1) % 100).zero?

    puts "#{n + 1} kills (#{restores.killed} within a restore), #{kills.acknowledged} acknowledged records, " \
         "none lost, none by half, files intact"
    $stdout.flush
  end
end
