# frozen_string_literal: true

require "test_helper"

module Thistle
  module Core
    module Survey
      # Past work, checks and plantings in tables: every heading finds its column, every method, active and native its
      # key by any of its names, and nothing that a row must say is filled in.
      class RecordColumnsTest < Minitest::Test
        LEAST = { "treatment" => { "Patch" => "Q-1", "Date" => "2025-05-09", "Method" => "Pull by hand" },
                  "check" => { "Site ID" => "Q-1", "Date checked" => "9 May 2025", "Alive" => "4" },
                  "planting" => { "Plot" => "Q-1", "Species" => "Spicebush", "Date planted" => "2025-10-01",
                                  "Area m2" => "20" } }.freeze

        def library = Knowledge.shipped
        def kind(key) = RecordColumns::KINDS.fetch(key)

        def read(key, row, **how)
          named = row.transform_keys { |heading| RecordColumns.named(kind(key), heading) }
          mapping = RecordColumns.guess_in(kind(key), named.keys)
          RecordColumns::Reading.new(kind(key), mapping, library, **how).read(named)
        end

        def test_every_heading_finds_its_column
          RecordColumns::KINDS.each_value do |kind|
            kind.columns.each do |column|
              column.names.each do |name|
                written = name.tr("_", " ").capitalize

                assert_equal column.key, RecordColumns.guess(kind, [written])[written], "#{kind.key}: #{written}"
              end
            end
          end
        end

        def test_a_table_is_told_by_its_headings
          LEAST.each { |key, row| assert_equal key, RecordColumns.kind_of(row.keys)&.key }
          [%w[Plant Date], %w[Patch Date], %w[name note], ["", nil].map(&:to_s)].each do |headings|
            assert_nil RecordColumns.kind_of(headings), headings.join(", ")
          end
        end

        # What two bear is left to the last of them.
        def test_every_method_active_and_native_is_known_by_its_names
          lists = { "Method" => ["treatment", :method_key, library.methods_of_removal],
                    "Herbicide" => ["treatment", :active_key, library.actives],
                    "Species" => ["planting", :native_key, library.palette] }
          lists.each do |heading, (key, column, list)|
            names = list.flat_map { |one, thing| [[one, one], [one, thing.name.upcase]] }
            once = names.reject { |_, name| names.count { |_, other| other.casecmp?(name) } > 1 && !list.key?(name) }
            base = key == "treatment" ? LEAST[key].merge("Herbicide" => "glyphosate_ipa") : LEAST[key]
            wrong = once.reject { |one, name| read(key, base.merge(heading => name)).first[column] == one }

            assert_empty wrong, heading
          end
        end

        # A method with herbicide is no record without its active: it would stand in no book. All methods.
        def test_herbicide_says_its_active
          library.methods_of_removal.each do |key, removal|
            row = LEAST["treatment"].merge("Method" => key)
            next assert_empty read("treatment", row).last unless removal.herbicide?

            assert_raises(BadInput, key) { read("treatment", row) }
            assert_equal "glyphosate_ipa",
                         read("treatment", row.merge("Herbicide" => "glyphosate_ipa")).first[:active_key]
          end
        end

        # Hours of all together are parted by the number of people; without it they stay out, with a word. A ground
        # whose unit no heading says is nobody's guess.
        def test_hours_and_ground_are_not_guessed
          row = LEAST["treatment"].merge("Total hours" => "12")
          values, notes = read("treatment", row)

          assert_nil values[:hours]
          assert_match(/number of people/, notes.join)
          assert_in_delta 4.0, read("treatment", row.merge("Crew" => "3")).first[:hours]
          assert_nil RecordColumns.guess(kind("treatment"), %w[Area])["Area"]
        end

        # Left out one by one, each thing that a row must say makes it no record.
        def test_what_a_row_must_say_is_never_filled_in
          LEAST.each do |key, row|
            assert_empty read(key, row).last
            row.each_key do |heading|
              assert_raises(BadInput, "#{key} without #{heading}") { read(key, row.merge(heading => "")) }
            end
          end
        end

        def test_a_date_with_two_readings_waits_for_an_answer
          row = LEAST["treatment"].merge("Date" => "3/4/2025")

          assert_match(/could be two days/, assert_raises(BadInput) { read("treatment", row) }.message)
          assert_equal Date.new(2025, 4, 3), read("treatment", row, days: "dmy").first[:done_on]
          assert_equal Date.new(2025, 3, 4), read("treatment", row, days: "mdy").first[:done_on]
        end

        def test_ground_comes_in_square_metres
          assert_in_delta 5000.0, read("treatment", LEAST["treatment"].merge("Hectares" => "0,5")).first[:area_m2]
          assert_in_delta 4046.856, read("treatment", LEAST["treatment"].merge("Acres" => "1")).first[:area_m2], 0.001
        end
      end
    end
  end
end
