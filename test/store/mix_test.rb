# frozen_string_literal: true

require "test_helper"

module Thistle
  # Labels, tanks and the ground that they were poured on, over time; and what a season may still put there.
  class MixStoreTest < Minitest::Test
    GRAMS = 480.0 # of active on a litre, 356 g of it acid
    ACID = 480.0 * 169.07 / 228.18

    def setup
      Testing.demo(fresh: true)
      @q = Store::Property.first(prefix: "Q")
      @today = Store::Setting.today
    end

    def patch(code) = Testing.patch(code)

    def product(name, most: nil, **more)
      actives = JSON.generate([{ active: "glyphosate_ipa", percent: 41.0, grams_per_litre: GRAMS,
                                 most_g_per_ha: most }.compact])
      uses = JSON.generate([{ kind: "cut_stump", low: 20.0, high: 50.0 }, { kind: "foliar", low: 2.0, high: 2.0 }])
      Store::Product.create(name:, actives:, uses:, counted_ml: 1000.0, counted_at: Time.now.utc - 60, **more)
    end

    def record(patch, product, on: @today, **more)
      Store::Treatment.record(patch, @q.site(@today), done_on: on, method_key: "cut_stump", crew_size: 1, hours: 1.0,
                                                      active_key: "glyphosate_ipa", product_id: product.id,
                                                      product_ml: 100.0, mix_ml: 200.0, applicator: "R. Lindqvist",
                                                      **more)
    end

    # A box of so many metres east and north of a corner of the quarry.
    def box(west, south, east, north)
      lon, lat = ->(x) { -91.4 + (x / 87_800.0) }, ->(y) { 38.0 + (y / 111_000.0) }
      ring = [[west, south], [east, south], [east, north], [west, north], [west, south]].map { |x, y| [lon[x], lat[y]] }
      Core::Survey::Shape.new("type" => "Polygon", "coordinates" => [ring])
    end

    def boxed(code, shape, **more)
      Store::Patch.new(property_id: @q.id, code:, plant_key: "amur_honeysuckle", state: "surveyed",
                       seen_on: @today - 400, **more).tap { |one| one.shape = shape }.save
    end

    # A new label holds from now on; a slip of the pen is put right for all.
    def test_a_record_goes_by_the_label_of_its_day
      can = product("Can", registration: "old")
      before = record(patch("Q-05"), can)
      can.update(registration: "new", name: "New can")
      after = record(patch("Q-05"), can)

      assert_equal [%w[Can old], ["New can", "new"]],
                   [before, after].map { |one| one.refresh.application.to_h.values_at(:product, :registration) }
      can.mistyped = true
      can.update(registration: "right")

      assert_equal %w[old right], [before, after].map { |one| one.refresh.application.registration }
      can.count(500, @today)

      assert_equal "old", before.refresh.application.registration
      assert_equal 1, Store::LabelVersion.count
    end

    # Both count: stock, grams of acid, the longest closing, what one lacks.
    def test_two_products_in_one_tank
      one = product("One", registration: "1-1", reentry_h: 12.0)
      two = product("Two", reentry_h: 48.0, most: 1.0)
      work = record(patch("Q-05"), one, second_product_id: two.id, second_product_ml: 60.0, area_m2: 100.0)

      assert_equal [900.0, 940.0], [one, two].map(&:on_hand_ml)
      assert_equal @today + 2, work.closed_until
      assert_equal ["One and Two", nil, 160.0], work.application.to_h.values_at(:product, :registration, :amount)
      assert_in_delta 0.16 * ACID / 0.01, Store::Applications.new(patch("Q-05"), @today.year).most("glyphosate"), 0.1
      assert_in_delta 1.0, work.past_label.first.most
      work.take_back(version: 0, person: "R. Lindqvist", reason: "another can")

      assert_equal [1000.0, 1000.0], [one, two].map(&:on_hand_ml)
    end

    # By hand: what was put on a hectare that is drawn smaller since still lies on the half that is no patch any more: a
    # patch drawn there later has it; so has one on the ground of a closed patch.
    def test_the_ground_as_it_was_on_the_day
      can = product("Can")
      whole = boxed("Q-90", box(0, 0, 100, 100))
      record(whole, can, on: @today - 20)
      Store::Reshape.new(whole).look_again(seen_on: @today - 10, amount: Core::Survey::Amount.new,
                                           shape: box(0, 0, 50, 100))
      other = boxed("Q-91", box(50, 0, 100, 100))
      grams = 0.1 * ACID

      assert_in_delta grams, Store::Applications.new(other.refresh, @today.year).most("glyphosate"), 0.2
      record(whole.refresh, can)

      assert_in_delta grams, Store::Applications.new(other, @today.year).most("glyphosate"), 0.2
      assert_in_delta 3 * grams, Store::Applications.new(whole, @today.year).most("glyphosate"), 0.5
      whole.update(state: "closed")
      under = boxed("Q-92", box(0, 0, 20, 20))

      assert_in_delta 3 * grams, Store::Applications.new(under, @today.year).most("glyphosate"), 0.5
    end

    # A label closes ground, not a name: the part that was split off, what took it in, what is drawn there now; however
    # many newer records there are.
    def test_what_a_label_closes_follows_the_ground
      can = product("Closing can", reentry_h: 48.0, plant_back_days: 60.0)
      whole = boxed("Q-90", box(0, 0, 100, 100))
      far = boxed("Q-95", box(500, 0, 520, 20))
      record(whole, can, on: @today - 20)
      line = Core::Survey::Shape.new("type" => "LineString", "coordinates" => split_at(50))
      part = Store::Reshape.new(whole.refresh).split(line, on: @today - 5)
      part = Array(part).last
      until_day = @today - 20 + 60

      assert_equal [until_day, until_day], [whole.refresh, part.refresh].map { |one| kept(one) }
      big = boxed("Q-91", box(-50, 0, -1, 100))
      Store::Reshape.new(big).merge(whole.refresh, on: @today - 2)

      assert_equal until_day, kept(big.refresh), "what took it in"
      drawn = boxed("Q-92", box(10, 10, 20, 20))

      assert_equal until_day, kept(drawn), "what is drawn there now"
      assert_nil kept(far)
      entry = Store::ClosedGround.of([@q.id], @today).find { |one| one.kind == :unplanted }

      assert_includes entry.codes, part.code
      refute_includes entry.codes, far.code
    end

    # By hand: imazapyr of 20 days ago keeps grass off for 180 to 365 days, flowers for 365 to 730; glyphosate is over.
    def test_what_stays_in_the_soil
      record(patch("Q-05"), product("Can"), on: @today - 20)
      Store::Treatment.record(patch("Q-05"), @q.site(@today), done_on: @today - 20, method_key: "cut_stump",
                                                              crew_size: 1, hours: 1.0, active_key: "imazapyr",
                                                              applicator: "R. Lindqvist")
      waits = patch("Q-05").history.soil_waits(@today)

      assert_equal({ "grass" => [160, 345], "forbs" => [345, 710], "woody" => [160, 710] },
                   waits.to_h { |one| [one.kind, [(one.from - @today).to_i, (one.to - @today).to_i]] })
      assert_equal [false, true, true], waits.map(&:bioassay?)
      assert_empty patch("Q-10").history.soil_waits(@today)
    end

    def kept(patch) = patch.history.kept_until(:unplanted, @today)

    # A line from south to north, so many metres east.
    def split_at(east)
      lon, lat = -91.4 + (east / 87_800.0), ->(y) { 38.0 + (y / 111_000.0) }
      [[lon, lat[-10]], [lon, lat[110]]]
    end

    # A count holds what was used before it, whenever that was written down; an incomplete record is found behind any
    # number of complete ones; the tenth of an acre is of the day.
    def test_counts_and_records
      can = product("Counted can", registration: "1-1")
      can.count(500, @today)
      record(patch("Q-05"), can, on: @today - 30)

      assert_in_delta 500, can.refresh.on_hand_ml
      record(patch("Q-05"), can)

      assert_in_delta 400, can.refresh.on_hand_ml
      @q.update(record_rule: "us_federal")
      rows = Store::HerbicideRecords.new(@q)
      2.times { |n| record(patch("Q-05"), can, on: @today - 3, area_m2: 250.0, stems_done: n + 1) }
      spots = rows.rows.select { |row| row.work.done_on == @today - 3 && row.work.product_id == can.id }

      assert_equal [false], spots.map(&:spot).uniq, "two spots of 250 m² are no spot"
    end

    # By hand: a product with 355.7 g of acid on a litre, 2 % in 20 L on a hectare, is 142 g; the label allows 200. Two
    # patches of a hectare, half over one another: one of them may be sprayed, never both; with 142 g lying there, none.
    def test_a_season_keeps_to_the_labels
      Store::InUse.choose(@q, "foliar", product("Leaf can", most: 200.0))
      one, two = boxed("Q-90", box(0, 0, 100, 100)), boxed("Q-91", box(50, 0, 150, 100))
      options = [one, two].map do |patch|
        Core::Decide::Plan::Option.new(patch: patch.id, method: "foliar_spot", week: 0, parts: 1, hours: 1.0,
                                       litres: 20.0, cost: 0.0, gain: 10.0)
      end

      assert_equal [1, :solver], season(options).then { |answer| [answer.items.size, answer.by] }
      clash = Store::LabelShares.new(@q, options, [@today])
      pins = [one, two].map { |patch| Core::Decide::Plan::Wish.new(patch: patch.id) }

      assert_equal [[:label, nil]], Core::Decide::Plan.new(options, limits(clash), pins:).solve.clashes
      record(one, product("Stem can"), on: @today - 1, product_ml: 400.0, mix_ml: 800.0)

      plan = Core::Decide::Plan.new(options, limits(Store::LabelShares.new(@q, options, [@today])))

      assert_equal [[one.id, :label], [two.id, :label]], plan.left_out({}, [one.id, two.id])
      Store::Treatment.last.take_back(version: 0, person: "R. Lindqvist", reason: "another can")
      Store::InUse.choose(@q, "stem", product("Strict can", most: 100.0))
      mixed = [options.first, options.last.with(method: "cut_stump", litres: 0.1)]
      left = Store::LabelShares.new(@q, mixed, [@today]).caps.most

      assert_equal [100.0, 100.0, 200.0], left.sort, "the strictest of two labels counts where both may go"
      Store::InUse.choose(@q, "stem", nil)
      Store::InUse.choose(@q, "foliar", nil)
      free = Store::LabelShares.new(@q, options, [@today])

      assert_empty free.caps.most
      assert_equal 2, free.unknown
    end

    # Whatever is left out of a record: what core misses in it, SQLite finds.
    def test_what_is_lacking_is_found_without_reading_the_rest
      cans = [product("Numbered", registration: "1-1"), product("Plain")]
      random = Random.new(7)
      facts = { licence_number: "C-7", licence_category: "natural", licence_expires_on: @today + 9, started_at: "09:00",
                ended_at: "10:00", equipment: "jar", left_over_ml: 0.0, area_m2: 300.0, mix_ml: 200.0 }
      40.times do |n|
        known = n.zero? ? facts : facts.reject { random.rand < 0.15 }
        record(patch("Q-05"), n.zero? ? cans.first : cans.sample(random:), mix_ml: nil,
               area_m2: random.rand < 0.5 ? 900.0 : nil, **known)
      end
      %w[us_federal strict].each do |rule|
        @q.update(record_rule: rule)
        records = Store::HerbicideRecords.new(@q)

        kept = records.rows.select { |row| row.work.done_on >= @today - (366 * records.rule.keep_years) }

        assert_equal kept.select { |row| row.missing.any? }.map { |row| row.work.id }.sort,
                     records.incomplete(@today).map { |row| row.work.id }.sort
        assert_operator records.incomplete(@today).size, :<, records.rows.size
      end
    end

    # What was measured beside the work goes before the station, hour by hour, and is named.
    def test_weather_by_hand
      work = record(patch("Q-05"), product("Can"), started_at: "09:00", ended_at: "11:00",
                                                   weather_by_hand: '{"middle":{"wind_km_h":21.0}}')
      station = JSON.parse(work.hourly_weather)

      assert_equal [[], ["wind_km_h"], []], work.hours_of_application.map { |one| one["by_hand"] }
      assert_equal [station[1]["temperature"], 21.0], work.hours_of_application[1].values_at("temperature", "wind_km_h")
      assert_predicate work, :weathered?
      refute_predicate record(patch("Q-05"), product("Other"), weather_by_hand: '{"end":{"wind_km_h":3.0}}'),
                       :weathered?
    end

    # The product in use for a kind of work says whether it may be used at the water; where none is, the property does.
    def test_the_product_in_use_at_the_water
      wet = patch("Q-05")
      wet.update(water_m: 3.0)
      verdict = ->(method) do
        bench = Core::Decide::Bench.new(wet.refresh.facts(@today), @q.site(@today))
        reasons = bench.verdict(Core::Knowledge.shipped.removal(method)).reasons
        reasons.find { |one| one.rule == :labelled_for_water }.kind
      end

      assert_equal %i[no no], [verdict["cut_stump"], verdict["foliar_spot"]]
      Store::InUse.choose(@q, "stem", product("Water can", aquatic: true))

      assert_equal %i[note no], [verdict["cut_stump"], verdict["foliar_spot"]]
      @q.update(aquatic_label: true)
      Store::InUse.choose(@q, "stem", product("Dry can", aquatic: false))

      assert_equal %i[no note], [verdict["cut_stump"], verdict["foliar_spot"]]
    end

    private

    def season(options) = Core::Decide::Plan.new(options, limits(Store::LabelShares.new(@q, options, [@today]))).solve
    def limits(shares) = Core::Decide::Plan::Limits.new(hours: [40.0], litres: nil, cost: nil, labels: shares.caps)
  end
end
