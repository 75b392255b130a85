# frozen_string_literal: true

require "test_helper"

module Thistle
  # What a year is made of where nobody measured, from the places around.
  class NormalsTest < Minitest::Test
    # Places that the table does not have: latitude, longitude, metres, is the sea in sight; the climate; °C of the
    # coldest and of the warmest month, mm in a year (recalled).
    KNOWN = {
      "Hereford" => [52.06, -2.72, 60, false, "frost", 4.5, 17.3, 700],
      "Truro" => [50.26, -5.05, 50, true, "mild", 7, 16.7, 1050],
      "Kendal" => [54.33, -2.75, 60, true, "frost", 4.3, 15.6, 1300],
      "Aberdeen" => [57.15, -2.1, 30, true, "frost", 4, 14.5, 800],
      "Lille" => [50.63, 3.06, 30, false, "frost", 4, 18.7, 740],
      "Stuttgart" => [48.77, 9.18, 300, false, "frost", 1.5, 19.8, 690],
      "Coimbra" => [40.2, -8.42, 100, false, "winter_wet", 10, 22, 900],
      "Granada" => [37.18, -3.6, 690, false, "winter_wet", 7, 26, 360],
      "Olympia" => [47.04, -122.9, 40, true, "winter_wet", 4, 18.5, 1270],
      "Salem" => [44.94, -123.04, 60, false, "winter_wet", 5, 20, 1010],
      "Bellingham" => [48.75, -122.48, 30, true, "winter_wet", 4, 17.5, 900],
      "Courtenay" => [49.69, -125.0, 20, true, "winter_wet", 3.5, 18, 1180],
      "Red Deer" => [52.27, -113.8, 900, false, "frost", -10, 16.5, 470],
      "Regina" => [50.45, -104.6, 580, false, "frost", -14.5, 19, 390],
      "Kingston" => [44.25, -76.5, 90, false, "frost", -7, 21, 960],
      "Moncton" => [46.1, -64.8, 30, true, "frost", -8.5, 19, 1150],
      "Syracuse" => [43.05, -76.15, 120, false, "frost", -4.5, 22, 1000],
      "Springfield" => [39.8, -89.65, 180, false, "frost", -2.5, 25, 950],
      "Wichita" => [37.7, -97.3, 400, false, "frost", 1, 27.5, 860],
      "Knoxville" => [35.96, -83.9, 270, false, "frost", 4, 26, 1290],
      "Gainesville" => [29.65, -82.3, 50, false, "mild", 13, 27.5, 1200],
      "Lafayette" => [30.2, -92.0, 10, false, "mild", 11, 28.5, 1530],
      "San Antonio" => [29.4, -98.5, 200, false, "mild", 11.5, 30, 800],
      "Pueblo" => [38.25, -104.6, 1430, false, "frost", -1, 25, 310],
      "Twin Falls" => [42.56, -114.46, 1140, false, "frost", -1, 23, 260],
      "Kalispell" => [48.2, -114.3, 900, false, "frost", -5, 19, 430],
      "Modesto" => [37.64, -121.0, 30, false, "winter_wet", 8.5, 26, 320],
      "Monterey" => [36.6, -121.9, 20, true, "winter_wet", 11, 16, 500],
      "Palmerston North" => [-40.35, 175.6, 40, false, "mild", 8.7, 18.3, 970],
      "Tauranga" => [-37.7, 176.2, 10, true, "mild", 10.5, 19.8, 1250],
      "Timaru" => [-44.4, 171.25, 20, true, "frost", 5.5, 16, 570],
      "Geelong" => [-38.15, 144.36, 20, true, "mild", 9.8, 19.5, 540],
      "Bathurst" => [-33.4, 149.6, 700, false, "frost", 5.8, 21.5, 640],
      "Newcastle, New South Wales" => [-32.9, 151.75, 20, true, "mild", 12.8, 23, 1120],
      "Bunbury" => [-33.33, 115.64, 10, true, "winter_wet", 12.8, 22.5, 730],
      "Paarl" => [-33.73, 18.97, 120, false, "winter_wet", 12, 23.5, 900],
      "Knysna" => [-34.04, 23.05, 20, true, "mild", 13.5, 20.5, 760]
    }.freeze
    ROWS = { "Coimbra" => "Portugal", "Granada" => "Spain", "Paarl" => "South Africa" }.freeze # named by homes.yml

    def test_places_that_the_table_does_not_have_are_told_by_those_around
      found = KNOWN.to_h { |name, (north, east, height, sea)| [name, around(north, east, height, sea)] }
      off = KNOWN.map do |name, (*, cold, warm, rain)|
        weather = found.fetch(name)
        cool, hot = [-1, 1].map { |sign| weather["mean"] + (sign * weather["swing"]) }
        [name, (cool - cold).round(1), (hot - warm).round(1), (weather["rain"].sum / rain.to_f).round(2)]
      end
      wrong = KNOWN.filter_map do |name, (*, climate, _, _, _)|
        key = Core::Season::Climate.of(Core::Season::Climate.months(found.fetch(name))).key
        "#{name}: #{key}, not #{climate}" unless key == climate || ROWS.key?(name)
      end

      assert_empty wrong
      assert_operator off.count { |_, cold, warm, _| cold.abs <= 2.5 && warm.abs <= 2.5 }, :>=, 0.9 * off.size, off
      assert_operator off.count { |*, rain| rain.between?(0.6, 1.6) }, :>=, 0.85 * off.size, off
    end

    # Every place of the table, told by the others: a slip of the pen in one row stands out.
    def test_each_known_place_is_like_those_around_it
      rows = Core::Knowledge.shipped.normals
      odd = rows.filter_map do |name, row|
        others = Core::Season::Normals.new(rows.except(name))
        weather = others.at(*row["at"], height: row["height"], sea: row.fetch("sea", false)) or next
        apart = [weather["mean"] - ((row["cold"] + row["warm"]) / 2.0),
                 weather["swing"] - ((row["warm"] - row["cold"]) / 2.0)]
        "#{name}: #{apart.map { |one| one.round(1) }}" if apart.any? { |one| one.abs > 3 }
      end

      assert(rows.values.all? { |row| row["cold"] < row["warm"] && row["range"].between?(4, 20) })
      assert_operator odd.size, :<=, 0.08 * rows.size, odd.join("; ")
      assert_empty(odd.select { |line| line[/-?\d+\.\d/].to_f.abs > 6 })
    end

    def test_height_makes_it_colder_and_far_places_stand_for_nobody
      low, high = [60, 760].map { |height| around(54.5, -3.1, height, false)["mean"] }

      assert_in_delta 4.2, low - high, 1.0
      assert_nil around(0.0, -30.0, nil, true)
      assert_nil around(64.0, -150.0, 100, false)
    end

    def test_a_year_that_fits_none_is_asked
      fits = ->(weather) { Core::Season::Climate.fits?(Core::Season::Climate.months(weather)) }

      assert fits[around(38.7, -90.3, 160, false)]
      assert fits[around(-41.3, 174.8, 50, true)]
      refute fits[around(36.1, -115.2, 620, false)], "winter and summer rain, hardly any of both"
      highveld = { "mean" => 16, "swing" => 5, "range" => 12, "south" => true,
                   "rain" => [130, 100, 90, 50, 15, 6, 4, 6, 25, 75, 115, 110] }
      refute fits[highveld], "mild, and the winter is dry"
    end

    private

    def around(north, east, height, sea) = Core::Season::Normals.shipped.at(north, east, height:, sea:)
  end
end
