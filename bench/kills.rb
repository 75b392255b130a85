# frozen_string_literal: true

require "io/wait"
require "sqlite3"

module Thistle
  # Writers who are killed with -9 at a random moment, again and again, on one file; and what the file says afterwards.
  # Needs a folder with the demo land in it, opened by this process.
  class Kills
    WRITERS = 4
    # What must never be found: half of something.
    HALVES = {
      "a patch without its first sight" => "patches p WHERE plant_key IS NOT NULL AND id NOT IN (SELECT patch_id " \
                                           "FROM observations)",
      "a patch without its extent" => "patches WHERE id NOT IN (SELECT id FROM patch_extents)",
      "an extent without its patch" => "patch_extents WHERE id NOT IN (SELECT id FROM patches)",
      "work without the state that follows" => "patches p JOIN treatments t ON t.patch_id = p.id WHERE p.note = " \
                                               "'killed' AND state <> 'hit'",
      "work without its visits" => "treatments t JOIN patches p ON p.id = t.patch_id WHERE p.note = 'killed' " \
                                   "AND t.id NOT IN (SELECT treatment_id FROM tasks WHERE treatment_id IS NOT NULL)"
    }.transform_values { |rows| "SELECT COUNT(*) FROM #{rows}" }.freeze
    TYPED = { "seen_on" => "2026-05-10", "plant_key" => "garlic_mustard", "radius" => "3", "note" => "killed",
              "sure" => "yes" }.freeze
    WORK = { done_on: Date.new(2026, 5, 11), method_key: "hand_pull", crew_size: 1, hours: 1.0, stems_done: 3 }.freeze

    attr_reader :acknowledged

    def initialize(property_id, seed: 1)
      @property_id, @random = property_id, Random.new(seed)
      @acknowledged = 0
      add(Store::Property[property_id], @random) # what is loaded now every writer has
    end

    # One round: [what is wrong], empty when nothing is.
    def round
      Store::Database.close
      readers, pids = Array.new(WRITERS) { |n| writer(@random.rand(1_000_000) + n) }.transpose
      sleep @random.rand(0.1..0.7)
      Process.kill("KILL", *pids)
      pids.each { |pid| Process.wait(pid) }
      look(readers.flat_map { |reader| reader.read.lines.map(&:to_i) })
    ensure
      readers&.each(&:close)
    end

    private

    # A process that adds patches and records work on them, and tells each that was acknowledged.
    def writer(seed)
      reader, telling = IO.pipe
      pid = fork do
        reader.close
        telling.sync = true
        property = Store::Property[@property_id]
        random = Random.new(seed)
        loop { telling.puts add(property, random) }
      end
      telling.close
      [reader, pid]
    end

    def add(property, random)
      place = [property.longitude + random.rand(-0.004..0.004), property.latitude + random.rand(-0.004..0.004)]
      typed = { "geometry" => JSON.generate(type: "Point", coordinates: place), **TYPED }
      patch = Web::Survey::Forms::Patch.new(typed, units: Core::Units.new, today: Date.new(2026, 5, 12))
                                       .add_to(property)
      Store::Treatment.record(patch, property.site(Store::Setting.today), **WORK)
      patch.id
    end

    def look(told)
      @acknowledged += told.size
      db = SQLite3::Database.new(Store::Database.path)
      wrong = HALVES.filter_map do |what, sql|
        "#{what}: #{db.get_first_value(sql)}" unless db.get_first_value(sql).zero?
      end
      kept = told.each_slice(500).sum do |ids|
        db.get_first_value("SELECT COUNT(*) FROM treatments WHERE patch_id IN (#{ids.join(",")})")
      end
      wrong << "acknowledged and lost: #{told.size - kept}" unless kept == told.size
      check = db.get_first_value("PRAGMA integrity_check")
      wrong << "the file: #{check}" unless check == "ok"
      wrong
    ensure
      db&.close
    end
  end
end
