# frozen_string_literal: true

require "test_helper"

module Thistle
  # Files that bring patches in.
  class StoreSurveyFilesTest < Minitest::Test
    def setup
      Testing.demo(fresh: true)
      @property = Store::Property.first(prefix: "Q")
      @today = Testing::TODAY
    end

    def patch(code) = Testing.patch(code)
    def shape(type, coordinates) = Core::Survey::Shape.new("type" => type, "coordinates" => coordinates)
    # Every column of every patch, but for the counter that undoing moves on.
    def record = Store::Patch.live.order(:id).map { |p| p.values.except(:lock_version, :updated_at) }

    # A file is all in or not at all; and all of it can be taken back, changed rows as they were.
    def test_an_arrival_is_whole_or_nothing
      before = record
      rows = [{ "code" => "Q-01", "note" => "from the file" }, { "code" => "N-1", "species" => "Caltrop" }]
      features = rows.each_with_index.map do |properties, n|
        point = { "type" => "Point", "coordinates" => [-91.39, 38.0] }
        Formats::Feature.new(geometry: n.zero? ? patch("Q-01").shape.published : point, name: "row", properties:)
      end
      arrival = Store::Arrival.draft(@property, "a.geojson", features)
      arrival.look(seen_on: @today)

      assert_equal({ "change" => 1, "add" => 1 }, arrival.counts)

      faults = 1 # the first writing fails, after the additions are in
      Store::Overlaps.stub(:settle, ->(*, **) { raise "the disk is full" if (faults -= 1).zero? }) do
        capture_io { arrival.take(seen_on: @today, at_once: true) }
      end
      assert_equal [before, "failed", "failed"], [record, arrival.refresh.status, arrival.job.status]
      arrival.take(seen_on: @today, at_once: true)

      assert_equal ["from the file", "caltrop", 2],
                   [patch("Q-01").note, patch("N-1").plant_key, arrival.job.refresh.done]
      assert_nil arrival.take(seen_on: @today, at_once: true), "it is taken once"
      arrival.undo

      assert_equal before, record
      assert_match(/Nothing of a.geojson is on the map/, assert_raises(Core::BadInput) { arrival.undo }.message)
    end

    # In the middle of an import an hour goes by. By the calendar (a clock set, a laptop that slept) it is not lost, and
    # comes in whole; by the machine's own clock it is: given up, cleared away, and it writes no slice more.
    def test_an_import_that_is_taken_for_lost_is_whole_or_not_at_all
      before, later = Store::Patch.count, Time.now + 3600
      moved = Store::Job.clock + 3600

      assert_equal ["taken", before + 1200],
                   import_while(38.0) { Time.stub(:now, later) { Store::Arrival.recover } }
      assert_equal ["failed", before + 1200],
                   import_while(38.2) { Store::Job.stub(:clock, moved) { Store::Arrival.recover } }
      assert_equal Store::Job::LOST, Store::Arrival.order(:id).last.fault
    end

    # Takes 1200 points at a latitude; the block runs before the second slice. [status, number of patches]
    def import_while(lat, &)
      point = ->(n) { { "type" => "Point", "coordinates" => [-91.4 + (n * 5e-4), lat] } }
      features = Array.new(1200) { |n| Formats::Feature.new(geometry: point[n], properties: {}) }
      arrival = Store::Arrival.draft(@property, "many.geojson", features)
      arrival.look(seen_on: @today, at_once: true)
      map = Core::Helpers.method(:map)
      halted = ->(slices, &work) do
        map.call(slices, &work).lazy.with_index.map { |answer, n| n == 1 ? [yield, answer].last : answer }
      end
      Core::Helpers.stub(:map, halted) { arrival.take(seen_on: @today, at_once: true) }
      [arrival.refresh.status, Store::Patch.count]
    end

    # Next year's file: the same codes on a later day are another look; what they were stays, and the whole can be taken
    # back.
    def test_a_later_file_keeps_what_was
      found = patch("Q-09")
      before, all = record, Store::PatchShape.count
      wider = Core::Survey::Overlay.buffer(found.shape, 9).published
      rows = [[wider, { "code" => "Q-09", "seen_on" => "2026-05-10", "cover" => "40" }],
              [patch("Q-01").shape.published, { "code" => "Q-01", "seen_on" => "2025-09-20" }],
              [patch("Q-03").shape.published, { "code" => "Q-03", "seen_on" => "2026-05-02" }]]
      file = -> {
        features = rows.map { |geometry, properties| Formats::Feature.new(geometry:, properties:) }
        Store::Arrival.draft(@property, "next.csv", features).tap { |arrival| arrival.look(seen_on: @today) }
      }
      arrival = file.call

      assert_equal({ "change" => 1, "same" => 2 }, arrival.counts)
      assert_match(/seen again on 2026-05-10, what it was is kept; changes .*shape/, arrival.arrival_rows.first.reason)
      arrival.take(seen_on: @today, at_once: true)

      assert_equal [Date.new(2022, 11, 2), Date.new(2026, 5, 10), 40.0, all + 1],
                   [found.refresh.seen_on, found.shape_from, found.cover_percent, Store::PatchShape.count]
      assert_in_delta(4.0, patch("Q-03").radius_m, 0.001, "what the file does not name stays")
      assert_equal({ "same" => 3 }, file.call.counts, "the same file again says nothing new")
      arrival.undo

      assert_equal [before, all], [record, Store::PatchShape.count]
    end

    # Doubles go in when they are wanted; plants that are certain are standing at once; what the columns do not name
    # stays unknown.
    def test_the_choices_of_an_arrival
      rows = [{ "species" => "Oriental bittersweet" },
              { "species" => "caltrop", "cover" => "30", "date" => "2026-05-01" }, { "note" => "what is it?" }]
      places = [patch("Q-01").shape.centre, [-91.39, 38.01], [-91.38, 38.01]]
      features = rows.zip(places).map do |properties, place|
        Formats::Feature.new(geometry: { "type" => "Point", "coordinates" => place }, properties:)
      end
      arrival = Store::Arrival.draft(@property, "b.geojson", features)
      arrival.map(arrival.columns, apart_m: 5.0, doubles: "add", sure: true)
      arrival.look(seen_on: @today)

      assert_equal({ "add" => 2, "double" => 1 }, arrival.counts)
      arrival.take(seen_on: @today, at_once: true)

      assert_equal [["oriental_bittersweet", "standing", @today], ["caltrop", "standing", Date.new(2026, 5, 1)],
                    [nil, "reported", @today]],
                   arrival.patches_dataset.order(:id).map { |p| [p.plant_key, p.state, p.seen_on] }
      assert_equal [true, true, nil], arrival.patches_dataset.order(:id).map { |p| p.observations.first&.settled }
      assert_in_delta 4 * Math::PI * 0.3, arrival.patches_dataset.order(:id).all[1].infested.first, 0.01
      assert(arrival.patches.all? { |p| p.history.records.empty? || p.life.state == p.state })
    end

    # Rows written in bulk are rows as the models write them.
    def test_bulk_rows_are_as_the_models_write_them
      fields = { property_id: @property.id, state: "reported", geometry: "{}", west: 1.5, south: 2.5, east: 3.5,
                 north: 4.5, seen_on: @today, natives_near: true, note: "it's “so”",
                 slope: "flat", lock_version: 0, shared_m2: 0.0, created_at: Time.utc(2026, 5, 12, 9, 30),
                 updated_at: Time.utc(2026, 5, 12, 9, 30) }
      Store::Bulk.insert(:patches, [{ **fields, code: "A" }])
      Store::Patch.db[:patches].insert(**fields, code: "B")
      raw = Store::Patch.db.synchronize do |db|
        db.execute("SELECT * FROM patches WHERE code IN ('A', 'B') ORDER BY code")
      end

      assert_equal raw[1].drop(1).map(&:to_s) - ["B"], raw[0].drop(1).map(&:to_s) - ["A"]
      assert_equal Store::Patch.first(code: "B").values.except(:id, :code), Store::Patch.first(code: "A")
                                                                                        .values.except(:id, :code)
    end
  end
end
