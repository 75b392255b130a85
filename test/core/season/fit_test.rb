# frozen_string_literal: true

require "open3"
require "test_helper"

module Thistle
  # Air, sun, soil and the hours ahead.
  class FitTest < Minitest::Test
    Season = Core::Season
    Hour = Season::Hour

    # A feed of days and hours as written down.
    Written = Struct.new(:days, :hours) do
      def daily(range) = days.select { |day| range.cover?(day.date) }
      def hourly(date) = hours ? hours.call(date) : []
      def station = nil
    end

    # CHECKS.md: Stull (2011); Baskerville and Emin (1969).
    def test_wet_bulb_and_degree_days
      assert_in_delta 13.699, Season::Air.wet_bulb(20, 50), 0.001
      assert_in_delta 5 / Math::PI, Season::DegreeDays.sine(5, 15, 10), 1e-9
      assert_in_delta 0, Season::DegreeDays.simple(5, 15, 10)
      assert_in_delta Season::DegreeDays.simple(12, 20, 10), Season::DegreeDays.sine(12, 20, 10), 1e-9
      assert_in_delta 45, Season::Air.humidity(21, Season::Air.dew_point(21, 45)), 1e-9
    end

    # FAO 56, Example 18 (recalled): Uccle, 50°48' N, 100 m, 6 July, 21.5 and 12.3 °C, vapour pressure 1.409 kPa,
    # 10 km/h at 10 m, 22.07 MJ m⁻² d⁻¹: 3.9 mm (3.88).
    def test_penman_monteith
      humidity = 100 * 1.409 / ((Season::Air.saturation(21.5) + Season::Air.saturation(12.3)) / 2)
      answer = Season::Sun.penman_monteith(Season::Sun.radiation(50.8, 187), tmin: 12.3, tmax: 21.5, wind: 10.0,
                                           humidity:, radiation: 22.07, elevation: 100.0)

      assert_in_delta 3.88, answer, 0.02
    end

    # The reference is the npm package astronomy-engine, run here, over latitudes to 65° and all months: two minutes
    # asked.
    def test_sunrise_and_sunset_against_an_astronomy_package
      places = [-65, -40, 0, 38, 52, 65].product([-91.4, 10.0, 150.0], (1..12).to_a)
      asked = places.map { |latitude, longitude, month| [latitude, longitude, format("2026-%02d-15", month)] }
      worst = asked.zip(reference(asked)).map do |(latitude, longitude, date), times|
        Season::Sun.rise_and_set(Date.iso8601(date), latitude, longitude).zip(times)
                   .map { |ours, theirs| (ours.to_f - theirs).abs }.max
      end.max

      assert_operator worst, :<, 120
    end

    # What falls = what evaporates, drains and runs off + what stays, on ten years of random weather in every soil.
    def test_the_water_balance_closes
      random = Random.new(11)
      Core::Knowledge.shipped.soils.each_key do |texture|
        soil = Season::Soil.new(texture:, latitude: 45.0)
        3650.times do |n|
          low = (20 * Math.sin(n / 58.0)) + random.rand(-8.0..6.0)
          day = Season::Day.new(date: Date.new(2016, 1, 1) + n, tmin: low, tmax: low + random.rand(1.0..15.0),
                                rain: random.rand < 0.3 ? random.rand * 60 : 0.0,
                                wind: random.rand < 0.5 ? random.rand * 30 : nil, humidity: random.rand(20.0..100.0))
          soil.pass(day, felt: random.rand < 0.01 ? %i[dry wet].sample(random:) : nil)
          flow = soil.flow

          assert_in_delta flow.rain + flow.felt,
                          flow.evapotranspiration + flow.drainage + flow.runoff + flow.change + flow.felt, 1e-9
          assert_operator soil.fill, :>=, 0
        end
      end
    end

    def test_snow_lies_and_frozen_ground_sheds
      soil = Season::Soil.new(texture: "loam", latitude: 45.0, fill: 0.5)
      cold = Season::Day.new(date: Date.new(2026, 1, 5), tmin: -12.0, tmax: -4.0, rain: 6.0)
      10.times { soil.pass(cold) }

      assert_equal [60.0, :frozen], [soil.snow.round(6), soil.kind]
      assert_in_delta 0.5, soil.fill
      thaw = soil.pass(cold.with(tmin: 2.0, tmax: 6.0, rain: 0.0)) && soil.flow

      assert_in_delta 12, thaw.runoff
    end

    def test_what_someone_felt_counts_from_then_on
      felt = Testing::TODAY - 2
      plain, told = [{}, { felt => :dry }].map { |soils| site(seen: Season::Seen::NONE.with(soils:)) }

      assert_equal %i[wet dry], [plain, told].map { |site| site.ground(felt).kind }
      assert_operator told.ground(Testing::TODAY).fill, :<, plain.ground(Testing::TODAY).fill
      assert_equal plain.ground(felt - 1), told.ground(felt - 1)
    end

    # A quiet, mild, dry day, then one thing wrong at a time: the limit that is named is that one.
    def test_every_no_says_which_limit
      fine = { temperature: 20.0, rain: 0.0, wind: 9.0, gust: 12.0, humidity: 55 }

      assert_equal [], against(fine)
      { { wind: 1.0 } => %i[wind], { wind: 22.0, gust: 19.0 } => %i[wind], { gust: 40.0 } => %i[gust],
        { temperature: 34.0 } => %i[temperature],
        { temperature: 3.0 } => %i[temperature], { humidity: 15 } => %i[delta_t],
        { wind: nil, gust: nil } => %i[wind gust],
        { humidity: nil } => %i[delta_t] }.each do |change, keys|
        assert_equal keys, against(fine.merge(change)).map(&:key), change.inspect
      end
      assert(against(fine.merge(wind: nil, gust: nil)).all?(&:unknown))
    end

    # Rain at 15:00 stops spray from nine on (6 hours rainfast), and a label of 2 hours from one.
    def test_rain_after_is_held_against_the_label
      air = { temperature: 20.0, wind: 9.0, gust: 12.0, humidity: 55 }
      feed = written(->(date) {
        (0..23).map { |at| Hour.new(at:, rain: at == 15 && date == Testing::TODAY ? 2.0 : 0.0, **air) }
      })
      labels = [nil, { foliar: { rainfast_h: 2 } }]
      usual, labelled = labels.map { |told| site(feed:).fit(:foliar, told).stretches.first }

      assert_equal [[Testing::TODAY, 9], [Testing::TODAY, 13]],
                   [usual, labelled].map { |stretch| [stretch.date, stretch.to] }
    end

    # An hour that the station missed is not known, and one does not spray through it.
    def test_a_missing_hour_is_not_known
      air = { temperature: 20.0, rain: 0.0, wind: 9.0, gust: 12.0, humidity: 55 }
      feed = written(->(_) { (0..23).reject { |at| at == 12 }.map { |at| Hour.new(at:, **air) } })
      hours = site(feed:).fit(:foliar).hours.first(24)

      assert(hours[12].against.any?(&:unknown))
      assert_includes hours[10].against.map(&:key), :rain_coming
      assert_equal 240, site(feed:).hours.size
    end

    def test_a_day_without_hours_is_taken_from_its_low_and_high
      day = Season::Day.new(date: Testing::TODAY, tmin: 8.0, tmax: 22.0, rain: 2.4, wind: 10.0, humidity: 60)
      hours = Season::Hours.of_day(day, 6.0)

      assert_equal [8.0, 22.0], hours.map(&:temperature).minmax
      assert_equal [6, 15], [hours.min_by(&:temperature).at, hours.max_by(&:temperature).at]
      assert_in_delta 2.4, hours.sum(&:rain), 1e-9
      assert_operator hours[6].humidity, :>, hours[15].humidity
    end

    # Without a station's wind a safety answer is missing: no spraying.
    def test_no_wind_no_spraying
      days = Testing.site.feed.daily((Testing::TODAY - 3660)..(Testing::TODAY + 9))
                    .map { |day| day.with(wind: nil, humidity: nil) }
      still = site(feed: Written.new(days))

      assert_empty still.fit(:foliar).stretches
      refute_empty still.fit(:pulling).stretches
    end

    # Past years' fit days counted by hand over the same days.
    def test_workable_days_are_counted
      site, limits = Testing.site, Core::Knowledge.shipped.fits[:pulling]
      from, to = Date.new(2026, 4, 1), Date.new(2026, 4, 30)
      fit = ->(date) { limits.fit_day?(site.day(date), site.ground(date).kind, site.day(date + 1).rain) }
      counts = (1..10).map { |n| ((from << (12 * n))..(to << (12 * n))).count(&fit) }.sort
      held = site.workable.held(limits, from, to)

      assert_in_delta (counts[4] + counts[5]) / 2.0, held.days, 1.5 # a leap day shifts a past year by one
      assert_equal [30, 10], [held.of, held.years]
    end

    private

    def site(feed: Testing.site.feed, seen: Season::Seen::NONE)
      Season::Site.new(feed:, latitude: 38.0, longitude: -91.4, texture: "loam", today: Testing::TODAY, seen:,
                       clock: Season::Clock.new("America/Chicago"))
    end

    def written(hours) = Written.new(Testing.site.feed.daily((Testing::TODAY - 3660)..(Testing::TODAY + 9)), hours)

    # What is said against spraying at noon when every hour is like this.
    def against(hour)
      feed = written(->(_) { (0..23).map { |at| Hour.new(at:, **hour) } })
      site(feed:).fit(:foliar).hours.find { |said| said.hour.date == Testing::TODAY && said.hour.at == 12 }.against
    end

    def reference(asked)
      script = <<~JS
        const A = require('#{ROOT}/node_modules/astronomy-engine');
        console.log(JSON.stringify(#{JSON.generate(asked)}.map(([lat, lon, day]) => {
          const noon = new Date(Date.parse(day + 'T12:00:00Z') - lon / 360 * 864e5), at = new A.Observer(lat, lon, 0);
          const rise = A.SearchRiseSet('Sun', at, +1, new Date(noon - 432e5), 1);
          return [rise, A.SearchRiseSet('Sun', at, -1, noon, 1)].map((t) => t.date / 1000);
        })));
      JS
      out, status = Open3.capture2("node", "-e", script)
      raise "node failed" unless status.success?

      JSON.parse(out)
    end
  end
end
