# frozen_string_literal: true

require "test_helper"

module Thistle
  # Columns as other people name and write them.
  class ColumnsTest < Minitest::Test
    Columns = Core::Survey::Columns

    def read(header, text)
      values, notes = Columns.read({ header => text }, Columns.guess([header]), Core::Knowledge.shipped)
      notes.empty? ? values.first : notes.first
    end

    def test_names_and_values
      { ["Species", "Alliaria petiolata (M. Bieb.) Cavara & Grande"] => [:plant_key, "garlic_mustard"],
        ["Common Name", "TREE-OF-HEAVEN"] => [:plant_key, "tree_of_heaven"],
        ["scientificName", "Lonicera maackii"] => [:plant_key, "amur_honeysuckle"],
        ["Cover %", "37,5 %"] => [:cover_percent, 37.5], %w[cover_class 3] => [:cover_class, 3],
        ["Stem Count", "1 200"] => [:stems, 1200],
        ["eventDate", "2026-05-12T10:00:00Z"] => [:seen_on, Date.new(2026, 5, 12)],
        ["Date found", "25/4/2026"] => [:seen_on, Date.new(2026, 4, 25)],
        ["Date found", "4/25/2026"] => [:seen_on, Date.new(2026, 4, 25)],
        ["When", "9 May 2026"] => [:seen_on, Date.new(2026, 5, 9)],
        %w[When 9-May-2026] => [:seen_on, Date.new(2026, 5, 9)],
        ["Recorded", "May 9, 2026"] => [:seen_on, Date.new(2026, 5, 9)], ["Ref.", "17"] => [:code, "17"],
        ["Plant (common)", "garlic mustard"] => [:plant_key, "garlic_mustard"],
        ["No. of plants", "12"] => [:plants, 12],
        ["date", "12.05.2026"] => [:seen_on, Date.new(2026, 5, 12)],
        ["observed on", "20260512"] => [:seen_on, Date.new(2026, 5, 12)],
        %w[acres 2] => [:infested_m2, 2 * Core::Units::M2_PER_ACRE], ["area_ha", "0,5"] => [:infested_m2, 5000.0],
        ["Stage", "Green seed"] => [:stage, "green_seed"], ["size class", "Wrist"] => [:stem_size, "wrist"],
        ["Remarks", " by the gate "] => [:note, "by the gate"] }
        .each { |(header, text), wanted| assert_equal wanted, read(header, text), "#{header}: #{text}" }
    end

    # What could be read two ways, or not at all, is left empty and said.
    def test_what_is_not_understood_is_left_empty_and_said
      assert_match(/“03.04.2026” could be two days and left empty/, read("date", "03/04/2026"))
      { "cover" => "140", "stems" => "-3", "species" => "Imaginaria nonsensica",
        "cover_class" => "9", "eventDate" => "2026-02-31", "height" => "tall" }
        .each { |header, text| assert_match(/“#{text}” was not understood and left empty/, read(header, text), header) }
    end

    # Each of ours goes to one column, the likelier name first, whatever their order.
    def test_guessing
      assert_equal({ "occurrenceID" => nil, "id" => nil, "code" => :code, "vernacularName" => nil,
                     "plant" => :plant_key, "cover" => :cover_percent, "Shape_Leng" => nil },
                   Columns.guess(%w[occurrenceID id code vernacularName plant cover Shape_Leng]))
      assert_equal :code, Columns.guess(%w[id occurrenceID])["id"]
    end

    def test_what_is_written_is_what_is_read
      Testing.demo(fresh: true)
      Store::Patch.live.each do |patch|
        told = Columns.of(patch).compact.transform_keys(&:to_s)
        values, notes = Columns.read(told.transform_values(&:to_s), Columns.guess(told.keys), Core::Knowledge.shipped)

        assert_empty notes, patch.code
        values.except(:gross_m2).each { |key, value| assert_equal patch[key], value, "#{patch.code} #{key}" }
      end
    end

    # Each kind of ground forbids what its file says, to every method that its file names, and no other.
    def test_protected_ground_by_kind_and_method
      plant = Testing.plant("amur_honeysuckle")
      facts = Core::Decide::Facts.new(plant:, settled: true, date: Testing::TODAY, size: "thumb", stance: "any",
                                      licensed: true, aquatic_label: false, water_m: 200.0, slope: "flat",
                                      natives_near: false, stems: 9, area_m2: 30.0)
      bench = Core::Decide::Bench.new(facts, Testing.site)
      rule = Core::Decide::Rules::ProtectedGround
      Core::Knowledge.shipped.zone_kinds.each_value do |kind|
        near = Core::Survey::Nearby.new(kind: kind.key, name: "Here", distance_m: 0.0, keep_m: 10.0)
        Core::Knowledge.shipped.methods_of_removal.each_value do |removal|
          said = rule.judge(bench.situation.with(zones: [near]), removal)
          tags = kind.forbids || []
          forbidden = tags.any? { |tag| tag == "herbicide" ? removal.herbicide? : removal.tags.include?(tag.to_sym) }

          assert_equal forbidden, !said.nil?, "#{removal.key} on #{kind.key}"
          assert_equal :no, said.kind if said
        end
      end
      wet = Core::Survey::Nearby.new(kind: "wetland", name: nil, distance_m: 4.0, keep_m: 10.0)
      cut = Core::Knowledge.shipped.removal("cut_stump")

      assert_match(/4 m from, and 10 m are kept from, mapped ground: wetland/,
                   rule.judge(bench.situation.with(zones: [wet]), cut).said)
      assert_nil rule.judge(bench.situation.with(zones: [wet], aquatic_label: true), cut)
    end
  end
end
