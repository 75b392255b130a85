# frozen_string_literal: true

require "test_helper"
require "yaml"
require "support/climates"

module Thistle
  # test/fixtures/situations.yml: the verdicts that a practitioner would give, by what PRACTICE.md says (common
  # practice).
  class SituationsTest < Minitest::Test
    ROWS = YAML.safe_load_file("#{ROOT}/test/fixtures/situations.yml", permitted_classes: [Date])
    DEFAULTS = { settled: true, stance: "any", licensed: true, aquatic_label: false, water_m: 300.0, slope: "flat",
                 natives_near: false,
                 cover: 15, stems: 40, area_m2: 200.0 }.freeze

    def test_a_practitioner_would_say_the_same
      faults = ROWS.filter_map do |row|
        verdict = bench(row).verdicts.find { |one| one.removal.key == row["method"] }
        said = verdict ? verdict.kind.to_s : "absent"
        unless as_told?(row, verdict, said)
          "#{row["name"]}: #{said}, #{verdict&.reasons&.map { |reason| "#{reason.kind} #{reason.rule}" }&.join(", ")}"
        end
      end

      assert_empty faults, faults.join("\n")
    end

    def test_they_cover_what_practice_covers
      assert_operator ROWS.size, :>=, 60
      assert_equal Core::Knowledge.shipped.methods_of_removal.keys.sort, (ROWS.map { |row| row["method"] } | []).sort
      assert_equal %w[coast desert south tropics], ROWS.filter_map { |row| row["at"] }.uniq.sort
    end

    private

    def as_told?(row, verdict, said)
      said == row["verdict"] &&
        (row["rule"].nil? || row["said"] == "none" ||
         verdict.reasons.any? { |one| [one.rule.to_s, one.kind.to_s] == [row["rule"], row.fetch("said", said)] })
    end

    def bench(row)
      given = row["given"].transform_keys(&:to_sym)
      %i[soil stage purpose belongs].each { |key| given[key] = given[key].to_sym if given[key] }
      given[:zones] = [Core::Survey::Nearby.new(kind: given[:zones], distance_m: 0.0, keep_m: 10.0)] if given[:zones]
      given[:schools] = Core::Decide::School.settle(given[:schools].transform_keys(&:to_sym)) if given[:schools]
      facts = Core::Decide::Facts.new(plant: Testing.plant(row["plant"]), date: row["day"], **DEFAULTS, **given)
      Core::Decide::Bench.new(facts, Climates.site(row.fetch("at", "north")))
    end
  end
end
