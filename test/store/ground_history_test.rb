# frozen_string_literal: true

require "test_helper"

module Thistle
  # One history of a ground, worked by hand: who was sprayed, planted, looked at where, after patches were split, cut,
  # merged, moved, drawn anew, closed and opened again. The boxes are metres from a corner of the quarry.
  class GroundHistoryTest < Minitest::Test
    def setup
      Testing.demo(fresh: true)
      @q = Store::Property.first(prefix: "Q")
      @today = Store::Setting.today
      @can = Store::Product.create(name: "Can", actives: "[]", uses: "[]", reentry_h: 48.0, plant_back_days: 60.0,
                                   counted_ml: 1000.0, counted_at: Time.now.utc - 60)
    end

    def box(west, south, east, north)
      shape("Polygon", [[west, south], [east, south], [east, north], [west, north], [west, south]])
    end

    def shape(type, places)
      all = places.map { |x, y| [-91.4 + (x / 87_800.0), 38.0 + (y / 111_000.0)] }
      Core::Survey::Shape.new("type" => type,
                              "coordinates" => { "Polygon" => [all], "Point" => all.first }.fetch(type, all))
    end

    def patch(code, shape, **more)
      Store::Patch.new(property_id: @q.id, code:, plant_key: "amur_honeysuckle", state: "standing",
                       seen_on: @today - 400, **more).tap { |one| one.shape = shape }.save
    end

    def spray(patch, ago)
      Store::Treatment.record(patch.refresh, @q.site(@today), done_on: @today - ago, method_key: "cut_stump",
                                                              crew_size: 1, hours: 1.0, active_key: "glyphosate_ipa",
                                                              product_id: @can.id, product_ml: 10.0, mix_ml: 20.0,
                                                              applicator: "R. Lindqvist")
    end

    def plant(patch, ago)
      Store::Planting.create(patch_id: patch.id, native_key: "switchgrass", area_m2: 10.0, plugs: 5,
                             from_on: @today - ago, to_on: @today - ago + 20, done_on: @today - ago)
    end

    def change(patch) = Store::Reshape.new(patch.refresh)

    # Days since each of our own sprayings: the demo's patches lie around.
    def sprayed(history)
      works = history.sprayed((@today - 900)..@today).map(&:first).select { |work| work.product_id == @can.id }
      works.map { |work| (@today - work.done_on).to_i }
    end

    def at(x, y) = Store::GroundHistory.at(@q, shape("Point", [[x, y]]))
    def history(patch) = patch.refresh.history

    def test_work_stays_where_it_was_done
      whole = patch("Q-80", box(0, 0, 100, 100))
      spray(whole, 300)
      part = change(whole).split(shape("LineString", [[50, -10], [50, 110]]), on: @today - 200).first
      spray(part, 100) # the eastern half, or the western
      east = part.refresh.west > whole.refresh.west
      sides = east ? [at(25, 50), at(75, 50)] : [at(75, 50), at(25, 50)]

      assert_equal [[300], [300, 100]], [whole, part].map { |one| sprayed(history(one)) }
      assert_equal [[300], [300, 100]], sides.map { |one| sprayed(one) }
      change(part).look_again(seen_on: @today - 50, amount: Core::Survey::Amount.new, shape: box(300, 0, 320, 20))

      assert_equal [[], [300, 100]], [sprayed(history(part)), sprayed(sides.last)], "a patch that moved leaves it"
      drawn = patch("Q-61", box(east ? 60 : 10, 10, east ? 90 : 40, 90))

      assert_equal [300, 100], sprayed(history(drawn)), "what is drawn there now has it"
      drawn.update(state: "closed", closed_on: @today)
      spray(drawn, 1)

      assert_equal [1, "hit"], [sprayed(history(drawn)).last, drawn.refresh.state], "closed ground, opened again"
      assert_equal @today - 1 + 60, history(drawn).kept_until(:unplanted, @today)
      assert_equal [[], nil], [sprayed(at(700, 700)), at(700, 700).kept_until(:closed, @today)]
    end

    def test_what_was_merged_and_cut_off_is_in_it_once
      one, other = patch("Q-80", box(0, 0, 40, 40)), patch("Q-61", box(45, 0, 85, 40))
      spray(one, 50)
      spray(other, 40)
      change(one).merge(other.refresh, on: @today - 30)
      part = change(one).cut_off(box(0, 0, 20, 40), on: @today - 20)
      spray(part, 10)

      assert_equal [[50, 40], [50, 10]], [one, part].map { |each| sprayed(history(each)) }
      assert_equal [[50, 10], [50], [40]], [at(10, 20), at(30, 20), at(60, 20)].map { |each| sprayed(each) }
      change(part).merge(one.refresh, on: @today - 5)

      assert_equal [50, 40, 10], sprayed(history(part)), "a part that came back to its whole has each record once"
      assert_equal [50, 40, 10], history(part).of(:treatment).map { |work| (@today - work.done_on).to_i }
    end

    # A line of 4 m width was sprayed, then drawn anew as an area elsewhere: the strip is still known.
    def test_a_line_keeps_the_width_of_its_day
      line = patch("Q-80", shape("LineString", [[0, 0], [100, 0]]), width_m: 4.0)
      spray(line, 60)
      change(line).look_again(seen_on: @today - 30, amount: Core::Survey::Amount.new, shape: box(300, 0, 320, 20))
      line.refresh.update(width_m: nil)
      off = patch("Q-61", box(10, 1, 20, 9))

      assert_equal [[60], [60], []], [history(off), at(10, 1.5), at(10, 3)].map { |one| sprayed(one) }
    end

    # Hands alone weed where something young stands: in a part, in what took it in, in what overlaps it.
    def test_a_young_planting_is_known_by_its_ground
      whole = patch("Q-80", box(0, 0, 100, 100))
      plant(whole, 200)
      part = change(whole).split(shape("LineString", [[50, -10], [50, 110]]), on: @today - 100).first
      over, far = patch("Q-61", box(90, 90, 120, 120)), patch("Q-62", box(300, 0, 320, 20))
      old = patch("Q-63", box(400, 0, 420, 20)).tap { |one| plant(one, Store::GroundHistory::YOUNG + 1) }

      assert_equal([true, true, true, nil, nil],
                   [whole, part, over, far, old].map { |one| one.refresh.facts(@today).new_planting })
      assert_equal([1, 1, 1, 0, 1], [whole, part, over, far, old].map { |one| history(one).plantings.size })
      ranked = Store::Ranking.new(@q.refresh, @today).facts

      assert_equal([true, true, nil], [part, over, far].map { |one| ranked.fetch(one.id).new_planting })
      young = Store::GroundHistory.planted_young([@q.id], @today)
      alone = Store::Alike.groups(property_ids: [@q.id], young:).select(&:alone).flat_map(&:ids)

      assert_empty [whole, part, over].map(&:id) - alone
    end

    def test_what_stands_and_was_found_there
      one = patch("Q-80", box(0, 0, 40, 40), plants: 12)
      Store::Check.record(one, checked_on: @today - 3, resprouts: 4, missed: 0, seedlings: 0)
      here, empty = at(20, 20), at(700, 700)

      assert_equal [[one.id, 4]], here.standing_on(@today).map { |stands, there| [stands.id, there.plants] }
      assert_equal [@today - 3, :check], here.last_found.first(2)
      assert_equal [[], nil], [empty.standing_on(@today), empty.last_found]
    end

    # Whatever is done to patches: what was sprayed at a place is what covered it when it was sprayed. The truth is kept
    # beside as plain rings with a test of a point in them, and no ground is asked for it.
    def test_a_random_history_agrees_with_what_covered_a_place
      [1, 2, 3].each do |seed|
        @random = Random.new(seed)
        truth = act(400)
        40.times do
          x, y = @random.rand(-20.0..220.0), @random.rand(-20.0..120.0)
          next if truth.any? { |_, rings| rings.any? { |ring| near_edge?(ring, x, y) } }

          wanted = truth.select { |_, rings| rings.any? { |ring| inside?(ring, x, y) } }.map(&:first)

          assert_equal wanted, sprayed(at(x, y)), "at #{x.round}, #{y.round} with seed #{seed}"
        end
        Testing.demo(fresh: true)
        setup
      end
    end

    # Splits, cuts, merges, redraws and sprays boxes for a year: [[days ago, rings of what was sprayed]].
    def act(ago)
      @live = [patch("Q-80", box(0, 0, 100, 100)), patch("Q-81", box(100, 0, 200, 100))]
      truth = []
      18.times do
        ago -= 20
        one = @live.sample(random: @random).refresh
        case @random.rand(6)
        when 0 then split(one, ago)
        when 1 then join(one, ago)
        when 2 then move(one, ago)
        else
          spray(one, ago)
          truth << [ago, rings(one)]
        end
      end
      truth
    end

    def split(one, ago)
      x = @random.rand(5.0..195.0)
      line = shape("LineString", [[x, -50], [x + 7, 150]])
      made = change(one).split(line, on: @today - ago)
      @live.concat(Array(made))
    rescue Core::BadInput
      nil # the line went past it
    end

    def join(one, ago)
      other = @live.find { |two| two.id != one.id } or return
      change(one).merge(other.refresh, on: @today - ago)
      @live.delete_if { |two| two.id == other.id }
    end

    def move(one, ago)
      west, south = @random.rand(0..120), @random.rand(0..60)
      change(one).look_again(seen_on: @today - ago, amount: Core::Survey::Amount.new,
                             shape: box(west, south, west + 60, south + 40))
    end

    # Rings of a patch's shape now, in metres of the quarry's corner.
    def rings(one)
      shape = JSON.parse(one.refresh.geometry)
      polygons = shape["type"] == "Polygon" ? [shape["coordinates"]] : shape["coordinates"]
      polygons.map { |all| all.first.map { |lon, lat| [(lon + 91.4) * 87_800, (lat - 38.0) * 111_000] } }
    end

    # Ray casting.
    def inside?(ring, x, y)
      ring.each_cons(2).count do |(ax, ay), (bx, by)|
        (ay > y) != (by > y) && x < ((bx - ax) * (y - ay) / (by - ay)) + ax
      end.odd?
    end

    def near_edge?(ring, x, y)
      ring.each_cons(2).any? do |(ax, ay), (bx, by)|
        length = ((bx - ax)**2) + ((by - ay)**2)
        along = length.zero? ? 0 : ((((x - ax) * (bx - ax)) + ((y - ay) * (by - ay))) / length).clamp(0, 1)
        Math.hypot(x - ax - (along * (bx - ax)), y - ay - (along * (by - ay))) < 1.0
      end
    end

    # 20 000 records on one ground, and 200 patches that lay there before: no more is read than what may still hold.
    def test_a_long_history_is_no_burden
      one = patch("Q-80", box(0, 0, 40, 40))
      spray(one, 3)
      row = Store::Treatment.last.values.except(:id)
      Store::Bulk.insert(:treatments, Array.new(20_000) { |n| { **row, done_on: @today - 200 - (n % 3000) } })
      held = history(one).sprayed((@today - 3650)..@today, only: Store::ClosedGround.asked_since(@today))

      assert_equal [1, @today - 3 + 60], [held.size, history(one).kept_until(:unplanted, @today)]
      assert_equal 20_001, history(one).sprayed((@today - 4000)..@today).size
    end
  end
end
