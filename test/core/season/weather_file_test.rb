# frozen_string_literal: true

require "test_helper"

module Thistle
  # A station's own tables: columns, units, clocks, and everything that is odd in them.
  class WeatherFileTest < Minitest::Test
    Season = Core::Season
    CHICAGO = Season::Clock.new("America/Chicago")

    # Day by day, in the units of half the world: °F, inches, mph, told by headers.
    def test_units_by_their_headers
      file = read("Date,Max Temp (F),Min Temp (F),Precip (in),Wind " \
                  "(mph),RH\n2026-05-01,68,50,0.50,10,60\n2026-05-02,77,59,0,5,50\n")
      first = file.days.first

      assert_equal [20.0, 10.0, 12.7, 16.09, 60.0], [first.tmax, first.tmin, first.rain, first.wind, first.humidity]
      assert_equal [Date.new(2026, 5, 1), Date.new(2026, 5, 2)], file.days.map(&:date)
    end

    # No unit written: a summer of 80s can only be °F, and rain under 3 beside it is inches.
    def test_units_by_their_values
      rows = (1..40).map do |n|
        "#{(Date.new(2026, 6, 1) + n).iso8601};#{80 + (n % 9)};#{60 + (n % 7)};#{(n % 4).zero? ? 0.42 : 0}"
      end
      guess = guess("date;tmax;tmin;rain\n#{rows.join("\n")}")

      assert_equal [["tmax", "°F"], ["tmin", "°F"], ["rain", "in"]],
                   guess.except("date").map { |header, (_, unit, _)| [header, unit] }
      assert_equal ["°C", :values], guess("date,tmax,tmin\n2026-06-01,31,18\n").fetch("tmax").last(2)
    end

    # One day, 8.3 to 17.2 °C and 4.6 mm, as published and common layouts write it (recalled from their documents).
    LAYOUTS = {
      "a row a day of an element" => "USW00013881,20260501,TMAX,172,,,W,2400\nUSW00013881,20260501,TMIN,83,,,W,2400\n" \
                                     "USW00013881,20260501,PRCP,46,,,W,2400\nUSW00013881,20260502,TMAX,999,,X,W,\n",
      "columns in tenths" => "\"STATION\",\"DATE\",\"PRCP\",\"TMAX\",\"TMIN\"\n" \
                             "\"X1\",\"2026-05-01\",\"   46\",\"  172\",\"   83\"\n" \
                             "\"X1\",\"2026-05-02\",\"    0\",\"  181\",\"  -99\"\n",
      "a model's days, a head above" => "latitude,longitude,elevation\n54.5,-3.1,120\n\n" \
                                        "time,temperature_2m_max (°C),temperature_2m_min (°C),rain_sum (mm)\n" \
                                        "2026-05-01,17.2,8.3,4.6\n",
      "year and day of the year" => "-BEGIN HEADER-\nDaily\n-END HEADER-\nYEAR,DOY,T2M_MAX,T2M_MIN,PRECTOTCORR\n" \
                                    "2026,121,17.2,8.3,4.6\n2026,122,-999,-999,-999\n",
      "semicolons and dates without marks" => "STATIONS_ID;MESS_DATUM;RSK;TXK;TNK;eor\n" \
                                              "3668;20260501; 4.6; 17.2; 8.3;eor\n3668;20260502;-999; 18.0; 9.0;eor\n",
      "year, month and day apart" => "Product code,Station number,Year,Month,Day,Rainfall amount (millimetres)," \
                                     "Maximum temperature (Degree C),Minimum temperature (Degree C)\n" \
                                     "X,066062,2026,05,01,4.6,17.2,8.3\n",
      "short names" => "date,tavg,tmin,tmax,prcp,wspd\n2026-05-01,12.4,8.3,17.2,4.6,11\n"
    }.freeze

    def test_layouts_of_open_services
      LAYOUTS.each do |name, text|
        day = read(text).days.first

        assert_equal [Date.new(2026, 5, 1), 8.3, 17.2, 4.6], [day.date, day.tmin, day.tmax, day.rain], name
      end
      assert_in_delta(-9.9, read(LAYOUTS["columns in tenths"]).days.last.tmin, 0.01,
                      "no sign that nothing was measured")
    end

    # A column is one of dates where every cell is a day, and else what it was.
    def test_eight_digits_are_no_date_among_others
      _, rows = Formats::WeatherTable.read("date,ref,tmin\n20260501,20260501,8\n20260502,77777777,9\n")

      assert_equal %w[2026-05-01 20260501], rows.first.values_at("date", "ref")
      assert_equal %w[2026-05-02 77777777], rows.last.values_at("date", "ref")
    end

    # A month of an element a line in fixed columns: 269 of them; what failed a check, and -9999, is not there.
    def test_a_month_a_line_in_fixed_columns
      text = [["TMAX", 172, 181], ["TMIN", 83, 90], ["PRCP", 46, -9999]].map do |element, *values|
        cells = (values + ([-9999] * (31 - values.size))).each_with_index.map do |value, n|
          format("%5d %s ", value, element == "TMAX" && n == 1 ? "I" : " ")
        end
        "USC00230000202605#{element}#{cells.join}"
      end.join("\n")
      file = read(text)

      assert_equal [[Date.new(2026, 5, 1), 8.3, 17.2, 4.6]],
                   file.days.map { |day| [day.date, day.tmin, day.tmax, day.rain] }
      both = "#{text}\n#{text.gsub("USC0023", "USC0099")}"
      two = assert_raises(Core::BadInput) { Formats::WeatherTable.read(both) }

      assert_match(/2 stations/, two.message)
    end

    def test_gaps_repeats_and_spikes_are_said
      file = read("date,tmax,tmin,rain\n2026-05-01,20,10,0\n2026-05-02,999,11,0\n2026-05-03,22,12,3\n" \
                  "2026-05-03,23,12,4\n2026-05-06,19,9,0\nnonsense,1,1,1\n2026-05-07,5,9,0\n")
      report = file.report

      assert_equal [Date.new(2026, 5, 1), Date.new(2026, 5, 3), Date.new(2026, 5, 6)], file.days.map(&:date)
      assert_in_delta(4.0, file.days[1].rain, 0.001, "the later row counts")
      assert_equal [[Date.new(2026, 5, 2), Date.new(2026, 5, 2)], [Date.new(2026, 5, 4), Date.new(2026, 5, 5)]],
                   report.gaps
      assert_equal [1, { "highest temperature" => 1 }, [[7, "nonsense"]]],
                   [report.repeats, report.spikes, report.unread]
      assert(report.notes.any? { |note| note.include?("its low is above its high") })
    end

    # 8 March 2026: the clock in Chicago skips two o'clock; 1 November: one o'clock comes twice.
    def test_hours_on_a_clock_with_daylight_saving
      spring = read(hours("2026-03-08", 0..23))
      autumn = read(hours("2026-11-01", [0, 1, 1, *2..23]))

      assert_equal 1, spring.report.skipped_hours
      assert_equal 25, autumn.hours.size
      assert_equal [Time.utc(2026, 11, 1, 6), Time.utc(2026, 11, 1, 7)], autumn.hours[1, 2].map(&:at)
      assert_equal Time.utc(2026, 3, 8, 8), read(hours("2026-03-08", [2]), zone: "standard").hours.first.at
      assert_equal Time.utc(2026, 3, 8, 2), read(hours("2026-03-08", [2]), zone: "utc").hours.first.at
      assert_equal Time.utc(2026, 3, 8, 7), read("datetime,temperature\n2026-03-08T02:00-05:00,5\n").hours.first.at
    end

    def test_days_are_folded_from_hours
      file = read(hours("2026-05-04", 0..23) { |at| [10 + (at == 15 ? 9 : 0), at == 6 ? 2.5 : 0] })
      partial = read(hours("2026-05-04", 0..9))

      assert_equal [10.0, 19.0, 2.5], [file.days.first.tmin, file.days.first.tmax, file.days.first.rain]
      assert_empty partial.days
      assert_match(/10 of 24 hours/, partial.report.notes.first)
    end

    def test_a_leap_of_a_sensor_is_left_out
      file = read(hours("2026-05-04", 0..23) { |at| [at == 9 ? 55 : 12, 0] })

      assert_in_delta(12.0, file.days.first.tmax)
      assert_equal({ "temperature" => 1 }, file.report.spikes)
    end

    def test_a_rain_gauge_that_counts_up
      rows = %w[2026-05-04 2026-05-05].flat_map do |date|
        (0..23).map { |at| "#{date} #{format("%02d", at)}:00,12,#{at < 8 ? 0 : [at - 7, 6].min}" }
      end
      file = read("datetime,temperature,rain\n#{rows.join("\n")}")

      assert_equal [6.0, 6.0], file.days.map(&:rain)
      assert_match(/counts up/, file.report.notes.first)
    end

    # 03/04 could be two days; one 25 in the column settles it.
    def test_the_order_of_day_and_month_is_told_or_asked
      assert_match(/day first or as month first/, read("date,tmax,tmin\n03/04/2026,20,10\n04/04/2026,20,10\n").fault)
      assert_equal Date.new(2026, 4, 3), read("date,tmax,tmin\n03/04/2026,20,10\n25/04/2026,20,10\n").days.first.date
      assert_equal Date.new(2026, 3, 4), read("date,tmax,tmin\n03/04/2026,20,10\n04/25/2026,20,10\n").days.first.date
    end

    def test_what_is_no_weather_is_said
      assert_match(/No column is a date/, read("place,tmax\nhere,20\n").fault)
      assert_match(/No column is a temperature/, read("date,rain\n2026-05-01,3\n").fault)
      ["", "one\ntwo\n", "a\u0000b", "\"open,1\n2,3"].each do |text|
        assert_raises(Core::BadInput) { Formats::WeatherTable.read(text) }
      end
    end

    # Spoilt anyhow, a table is read in part, or refused in words; nothing else happens.
    def test_spoilt_tables_are_answered_in_words
      random = Random.new(3)
      whole = "Ridge,,\nDate,High (F),Low " \
              "(F),Rain\n#{(1..30).map { |n| "5/#{n}/2026 0#{n % 10}:30,#{60 + n},#{40 + n},0.1" }.join("\n")}\n"
      400.times do
        text = whole.b.dup
        random.rand(1..6).times { spoil(text, random) }
        begin
          file = read(text.dup)
          next assert_kind_of(String, file.fault) if file.fault

          assert(file.days.all? { |day| day.tmin <= day.tmax && day.tmin > -60 })
          file.report
        rescue Core::BadInput => e
          refute_empty e.message
        end
      end
    end

    private

    def spoil(text, random)
      at = random.rand(text.size)
      case random.rand(4)
      when 0 then text[at] = [random.rand(256)].pack("C")
      when 1 then text.slice!(at, random.rand(1..40))
      when 2 then text.insert(at, ["\"", ",", "\n", ";", "9999", "-", "\xFF".b].sample(random:).b)
      else text.insert(at, text[at, 30])
      end
      text << "x" if text.empty?
    end

    def table(text) = Formats::WeatherTable.read(text)
    def guess(text) = Season::WeatherFile.guess(*table(text))

    def read(text, zone: "local")
      headers, rows = table(text)
      Season::WeatherFile.new(headers, rows, Season::WeatherFile.guess(headers, rows), clock: CHICAGO, zone:)
    end

    def hours(date, hours)
      rows = hours.map { |at| ["#{date} #{format("%02d", at)}:00", *(block_given? ? yield(at) : [12, 0])].join(",") }
      "datetime,temperature,rain\n#{rows.join("\n")}\n"
    end
  end
end
