# frozen_string_literal: true

require "test_helper"

module Thistle
  # Patches, their shapes, and what lies around them.
  class StoreSurveyTest < Minitest::Test
    def setup
      Testing.demo(fresh: true)
      @property = Store::Property.first(prefix: "Q")
      @today = Testing::TODAY
    end

    def patch(code) = Testing.patch(code)
    def shape(type, coordinates) = Core::Survey::Shape.new("type" => type, "coordinates" => coordinates)
    def box(x, y, w, h = w) = shape("Polygon", [[[x, y], [x + w, y], [x + w, y + h], [x, y + h], [x, y]]])
    def undo = Store::Change.undoable.first.take_back
    # Every column of every patch, but for the counter that undoing moves on.
    def record = Store::Patch.live.order(:id).map { |p| p.values.except(:lock_version, :updated_at) }

    def across(patch)
      middle = (patch.south + patch.north) / 2
      shape("LineString", [[patch.west - 0.001, middle], [patch.east + 0.001, middle]])
    end

    def test_a_split_keeps_the_ground_the_history_and_can_be_undone
      before = record
      whole = patch("Q-07")
      gross = whole.gross_m2
      parts = Store::Reshape.new(whole).split(across(whole), on: @today)

      assert_in_delta gross, whole.refresh.gross_m2 + parts.sum(&:gross_m2), gross * 1e-6
      assert_equal ["Q-31"], parts.map(&:code)
      assert_equal whole.state, parts.first.state
      assert_equal patch("Q-07").history.records.size, parts.first.history.records.size
      assert_equal patch("Q-07").open_tasks.map(&:reason), parts.first.open_tasks.map(&:reason),
                   "a part is come back to as well"
      assert_equal [gross, whole.refresh.gross_m2].map(&:round), whole.versions.last(2).map { |v| v.gross_m2.round }
      undo

      assert_equal before, record
    end

    # A part that was cleared gets its own records from here on; what it was part of does not.
    def test_a_part_cut_off_goes_its_own_way
      whole = patch("Q-05")
      cleared = box(whole.west, whole.south, (whole.east - whole.west) / 2, whole.north - whole.south)
      part = Store::Reshape.new(whole).cut_off(cleared, on: @today)
      seen = part.history.records.size
      Store::Treatment.record(part, @property.site(@today), done_on: @today, method_key: "hand_pull", crew_size: 1,
                              hours: 1.0, stems_done: 3)
      Store::Check.record(part, checked_on: @today + 30, resprouts: 0, missed: 0, seedlings: 0, cover_class: 1)

      assert_equal [seen + 2, "quiet", "hit"], [part.refresh.history.records.size, part.state, patch("Q-05").state]
      assert_raises(Core::BadInput) { Store::Reshape.new(whole).cut_off(box(-91.0, 38.0, 0.001), on: @today) }
      cut = -> { Store::Reshape.new(patch("Q-05")).cut_off(box(-92, 37.5, 2, 2), on: @today) }

      assert_match(/all of Q-05/, assert_raises(Core::BadInput, &cut).message)
      assert_match(/has been changed since/, assert_raises(Core::BadInput) { undo }.message)
    end

    def test_merged_patches_share_ground_once_and_both_histories
      one, two = patch("Q-04"), patch("Q-05")
      one.update(plant_key: two.plant_key)
      seen = one.history.records.size + two.history.records.size
      visits = (one.open_tasks + two.open_tasks).map(&:reason)
      tasks = -> { Store::Task.order(:id).select_map(%i[id patch_id reason]) }
      all = tasks.call
      before = record
      Store::Reshape.new(one).merge(two, on: @today)

      assert_in_delta one.ground.area, one.refresh.gross_m2, 0.01
      assert_equal [seen, nil], [one.history.records.size, patch("Q-05").deleted_at && Store::Patch.live[code: "Q-05"]]
      assert_equal visits.sort, one.open_tasks.map(&:reason).sort, "no visit is lost"
      undo

      assert_equal [before, all], [record, tasks.call]
      merge = -> { Store::Reshape.new(patch("Q-01")).merge(patch("Q-02"), on: @today) }

      assert_match(/another plant/, assert_raises(Core::BadInput, &merge).message)
    end

    # What was seen is dated; an earlier sight does not overwrite a later one.
    def test_looking_again_keeps_what_was
      found = patch("Q-01")
      wider = Core::Survey::Overlay.buffer(found.shape, 5)
      amount = Core::Survey::Amount.new(cover_percent: 60.0, stems: { "pencil" => 70, "thumb" => 12 }, height_cm: 300.0)
      Store::Reshape.new(found).look_again(seen_on: @today, amount:, shape: wider, people: "J. Finch")
      gross = found.refresh.gross_m2

      assert_in_delta wider.area, gross, 0.01
      assert_equal [[gross * 0.6, :estimated], 82, "pencil"], [found.infested, found.stems, found.stem_size]
      assert_equal [Date.new(2025, 9, 20), @today], [found.past_shapes.last.from_on, found.shape_from]
      Store::Reshape.new(found).look_again(seen_on: @today - 100, amount: Core::Survey::Amount.new(cover_class: 1))

      assert_equal [60.0, gross, 3], [found.refresh.cover_percent, found.gross_m2, found.observations.size]
      Store::Reshape.new(found).look_again(seen_on: @today, amount: Core::Survey::Amount.new(height_cm: 320.0))

      assert_equal [60.0, 82, 320.0], [found.refresh.cover_percent, found.stems, found.height_cm],
                   "what was not said stays"
    end

    # The property's own total against one union of everything, with patches laid over one another at random.
    def test_totals_count_shared_ground_once
      random = Random.new(6)
      # length times width
      @property.live_patches.all.select { |patch| patch.shape.kind == "line" }
               .each { |line| line.update(deleted_at: Time.now.utc) }
      rows = Array.new(25) do |n|
        patch = Store::Patch.new(property_id: @property.id, code: "O-#{n}", plant_key: "caltrop",
                                 seen_on: Date.new(2024, 5, 1) + (n * 20), cover_class: 2)
        patch.shape = box(-91.4 + random.rand(0.0..0.004), 38.0 + random.rand(0.0..0.003), random.rand(0.0004..0.0015))
        patch.save
      end
      rows.first(3).each { |patch| patch.update(deleted_at: Time.now.utc) }
      rows[5].shape = box(-91.398, 38.001, 0.002)
      rows[5].save
      totals = Store::Totals.new(@property)
      open = @property.live_patches.exclude(state: "closed").all

      assert_in_delta Core::Survey::Overlay.union(open.filter_map(&:ground))
                                           .area, totals.whole.ground_m2, totals.whole.ground_m2 * 1e-5
      assert_operator totals.whole.gross_m2 - totals.whole.ground_m2, :>, 1000
      assert_in_delta open.sum(&:gross_m2), totals.by_plant.sum(&:gross_m2), 0.01
      assert_in_delta open.filter_map { |p| p.infested&.first }.sum, totals.whole.infested_m2, 0.01
      assert_in_delta totals.whole.gross_m2, totals.by_year(@today).last.gross_m2, 0.01
      assert_equal open.size, totals.whole.patches
    end

    # A zone drawn, and everything near it knows; taken off, and it is forgotten. Decide listens.
    def test_zones_reach_the_patches_and_the_rules
      found = patch("Q-10")
      bench = -> { Core::Decide::Bench.new(found.refresh.facts(@today), @property.site(@today)) }
      verdict = -> { bench.call.verdicts.find { |one| one.removal.key == "basal_bark" } }
      before = verdict.call.kind

      assert_nil found.zones_in_reach&.find { |zone| zone.kind == "no_spray" }
      zone = Store::Zone.draw(@property, Core::Survey::Overlay.buffer(found.shape, 5), kind: "no_spray", name: "School",
                              keep_m: 20.0)

      assert_equal ["School", 0.0], found.refresh.zones_in_reach.find { |z| z.kind == "no_spray" }
                                         .to_h.values_at(:name, :distance_m)
      assert_equal :no, verdict.call.kind
      kept = verdict.call.reasons.select { |reason| reason.rule == :protected_ground }

      assert(kept.any? { |reason| reason.text.include?("“School”, no-spray zone") })
      assert_in_delta found.gross_m2, Store::Totals.new(@property).by_zone.find { |row| row.key == zone.id }
                                                   .gross_m2, 0.5
      zone.take_off

      assert_nil found.refresh.zones_in_reach&.find { |z| z.kind == "no_spray" }
      assert_equal before, verdict.call.kind
    end

    # A line is as wide as it is: its edge, not its middle, is what stands near water.
    def test_distances_are_from_the_edge_of_the_ground
      stream = @property.zones.find { |zone| zone.kind == "water" }.shape
      beside = Core::Survey::Overlay.buffer(stream, 20).parts.first.first.first(30)
      line = Store::Patch.new(property_id: @property.id, code: "W-1", seen_on: @today, width_m: 30.0)
      line.shape = shape("LineString", beside)
      line.save

      assert_in_delta 5.0, line.water_m, 0.5
      line.update(width_m: 2.0)

      assert_in_delta 19.0, line.refresh.water_m, 0.5
    end

    # A shape of degrees beside thousands of small ones is told apart without walking over every cell.
    def test_large_shapes_are_judged_beside_small_ones
      small = Array.new(400) do |n|
        { type: "Feature", geometry: { type: "Point", coordinates: [-91.9 + (n * 1e-3), 38.5] },
          properties: { species: "caltrop" } }
      end
      corners = [[-93, 37], [-89, 37], [-89, 40], [-93, 40], [-93, 37]]
      wide = { type: "Feature", geometry: { type: "Polygon", coordinates: [corners] },
               properties: { species: "caltrop" } }
      arrival = Store::Arrival.draft(@property, "wide.geojson",
                                     Formats::Reader.read(JSON.generate(type: "FeatureCollection",
                                                                        features: [wide, *small, wide])))
      arrival.look(seen_on: @today)

      assert_equal({ "add" => 1, "double" => 401 }, arrival.counts)
    end

    # The steeper of what was said and what the grid measures.
    def test_the_grid_tells_patches_their_slope
      assert_operator patch("Q-06").slope_deg, :>, 0
      assert_equal "steep", patch("B-01").lie
      heights = Array.new(60) { |r| Array.new(60) { r * 8 }.join(" ") }
      bytes = ["ncols 60", "nrows 60", "xllcorner -91.41", "yllcorner 37.997", "cellsize 0.0002", *heights].join("\n")
      layer = Store::Layer.keep(@property, kind: "elevation", name: "steep", bytes:, facts: { step: 10 })

      assert_equal %w[flat steep], patch("Q-01").then { |p| [p.slope, p.lie] }
      assert_equal "north", Core::Survey::Elevation::Lie.new(aspect: patch("Q-01").aspect_deg).faces
      layer.take_off

      assert_operator patch("Q-01").slope_deg, :<, 19
    end

    def test_searches_record_what_was_not_there
      track = shape("LineString", [patch("Q-01").shape.centre, patch("Q-06").shape.centre])
      search = Store::Search.record(@property, track, searched_on: @today, sight_m: 20.0,
                                    plants: %w[oriental_bittersweet garlic_mustard japanese_barberry])

      assert_equal ["garlic_mustard"], search.absences
      assert_in_delta (track.length * 20) + (Math::PI * 100), search.area_m2, search.area_m2 * 1e-3
    end

    # Right across the 180° meridian: saved, found from both sides, written in two parts.
    def test_a_patch_on_the_meridian
      home = Store::Property.create(name: "Line", prefix: "L", latitude: -17.0, longitude: 180.0, station_seed: 1,
                                    climate: JSON.generate(Testing::CLIMATE))
      found = Store::Patch.new(property_id: home.id, code: "L-1", seen_on: @today)
      found.shape = shape("Polygon", [[[179.9995, -17.0], [-179.9995, -17.0], [-179.9995, -16.999], [179.9995, -16.999],
                                       [179.9995, -17.0]]])
      found.save

      views = [[179.99, -17.01, 179.9999, -16.9], [-179.9999, -17.01, -179.99, -16.9], [179.9, -17.1, 180.1, -16.9]]
      views.each do |view|
        assert_equal [found.id], JSON.parse(Store::InView.new(home.id, view).json)["features"]
                                     .map { |f| f["id"] }, view.inspect
      end
      assert_in_delta Core::Survey::Geodesic.area([[0, -17.0], [0.001, -17.0], [0.001, -16.999], [0, -16.999]]),
                      found.gross_m2, 0.01
    end

    # 3 000 is the most that is drawn one by one; beyond, a crowd is counted. Nothing that was sent is sent again.
    def test_crowds_and_panning
      now = Time.now.utc
      rows = Array.new(3200) do |n|
        { property_id: @property.id, code: "X-#{n}", state: n.even? ? "standing" : "quiet",
          geometry: '{"type":"Point","coordinates":[-91,38]}', west: -91.0 + (n * 1e-6), east: -91.0 + (n * 1e-6),
          south: 38.0, north: 38.0, seen_on: @today, slope: "flat", lock_version: 0, shared_m2: 0.0, created_at: now,
          updated_at: now }
      end
      Store::Bulk.insert(:patches, rows)
      crowd = JSON.parse(Store::InView.new(@property.id, [-91.01, 37.9, -90.9, 38.1]).json)

      assert_equal [3200, 1600], [crowd["crowds"].sum { |c| c["patches"] }, crowd["crowds"].sum { |c| c["standing"] }]

      ids = ->(box, seen = nil) do
        JSON.parse(Store::InView.new(@property.id, box, seen:).json)["features"].map { |f| f["id"] }
      end
      here, there = [-91.0001, 37.9, -90.9995, 38.1], [-90.9999, 37.9, -90.9990, 38.1]

      assert_equal ids[there].sort, (ids[there, here] + (ids[here] & ids[there])).sort
      assert_empty ids[there, here] & ids[here]
    end

    # The R*Tree finds what a look at every row finds, for random views.
    def test_viewport_through_the_tree
      random = Random.new(4)
      20.times do
        west, south = @property.longitude + random.rand(-0.008..0.004), @property.latitude + random.rand(-0.006..0.003)
        box = [west, south, west + random.rand(0.0005..0.006), south + random.rand(0.0005..0.006)]
        plain = @property.live_patches.all.select do |p|
          p.west <= box[2] && p.east >= box[0] && p.south <= box[3] && p.north >= box[1]
        end

        found = JSON.parse(Store::InView.new(@property.id, box).json)["features"]

        assert_equal plain.map(&:id).sort, found.map { |f| f["id"] }.sort
        assert_equal plain.map(&:id).sort, Store::Patch.live.within(box).where(property_id: @property.id)
                                                       .select_map(:id).sort
      end
    end

    def test_extents_follow_a_moved_and_a_deleted_patch
      patch = Testing.patch("Q-01")
      patch.shape = Core::Survey::Shape.new("type" => "Point", "coordinates" => [-91.39, 38.01])
      patch.save

      assert_equal [patch.id], Store::Patch.within([-91.3901, 38.0099, -91.3899, 38.0101]).select_map(:id)
      patch.delete

      assert_empty Store::Patch.within([-91.3901, 38.0099, -91.3899, 38.0101]).all
    end

    def test_two_people_cannot_overwrite_each_other
      mine, theirs = Array.new(2) { Testing.patch("Q-01") }
      theirs.update(stems: 50)

      assert_raises(Sequel::NoExistingObject) { mine.update(stems: 60) }
      assert_equal 50, mine.reload.stems
    end

    def test_infested_is_measured_or_estimated_never_both
      patch = Testing.patch("Q-05")

      assert_equal [patch.gross_m2 * 0.625, :estimated], patch.infested
      patch.update(infested_m2: 900.0)

      assert_equal [900.0, :measured], patch.infested
      assert_operator patch.gross_m2, :>, 900
    end
  end
end
