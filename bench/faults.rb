# frozen_string_literal: true

# `rake bench faults`: kill -9 at random moments under four writers, a thousand times on one file; says what was lost
# or left
# by half, and stops at the first.
require "tmpdir"
require_relative "../thistle"
require_relative "kills"

rounds = Integer(ENV.fetch("ROUNDS", "1000"))
Dir.mktmpdir("thistle") do |folder|
  Thistle::Web::Boot.call(folder)
  Thistle::Demo::Land.new.load
  kills = Thistle::Kills.new(Thistle::Store::Property.first.id)
  rounds.times do |n|
    wrong = kills.round
    abort "round #{n + 1}: #{wrong.join(", ")}" if wrong.any?
    next unless ((n + 1) % 100).zero?

    puts "#{n + 1} kills, #{kills.acknowledged} acknowledged records, none lost, none by half, file intact"
  end
end
