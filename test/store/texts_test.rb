# frozen_string_literal: true

require "support/web"

module Thistle
  # Every kind of record that holds words is found by them as long as it counts; strange words find nothing and break
  # nothing.
  class TextsTest < RackTest
    # kind => table and column of its words; where the demo has no row, how one is made.
    PLACES = { "patch" => %i[patches note], "observation" => %i[observations note], "treatment" => %i[treatments note],
               "check" => %i[checks note], "search" => %i[searches note], "sighting" => %i[sightings note],
               "planting" => %i[plantings origin], "planting_plan" => %i[planting_plans reason],
               "person" => %i[people note], "product" => %i[products name], "sheet" => %i[reports answer_note],
               "work_day" => %i[work_days note], "zone" => %i[zones name], "layer" => %i[layers name],
               "tool" => %i[kit_items note], "trial" => %i[trials question], "course" => %i[courses reason],
               "local_rule" => %i[local_rules reason], "picture" => %i[pictures filename], "seed" => %i[seed_lots name],
               "gather_place" => %i[gather_places note], "count" => %i[take_counts note],
               "land_plan" => %i[land_plans asked] }.freeze

    def db = Sequel::Model.db
    def kinds(word) = Store::Texts.new(word).page.map(&:kind)

    def test_every_kind_is_found_while_it_counts
      assert_equal Store::Texts::KINDS.keys.sort, PLACES.keys.sort
      assert_equal PLACES.keys.sort, Web::Today::TextDesk::KINDS.keys.sort
      PLACES.each_with_index do |(kind, (table, column)), n|
        word = "zqword#{(97 + n).chr * 3}"
        id = row_of(table)
        db[table].where(id:).update(column => column == :asked ? JSON.generate("notes" => { "goals" => word }) : word)

        assert_equal [[kind, id]], Store::Texts.new(word).page.map { |one| [one.kind, one.id] }, kind
        next unless db[table].columns.include?(:deleted_at)

        db[table].where(id:).update(deleted_at: Time.now)
        assert_empty kinds(word), "#{kind}, taken back"
        db[table].where(id:).update(deleted_at: nil)
        assert_equal [kind], kinds(word), "#{kind}, brought back"
      end
    end

    # What its address leads to is there.
    def test_every_kind_leads_somewhere
      PLACES.each_with_index do |(kind, (table, column)), n|
        word = "zqway#{(97 + n).chr * 3}"
        db[table].where(id: row_of(table))
                 .update(column => column == :asked ? JSON.generate("notes" => { "goals" => word }) : word)
        found = json("/find.json?q=#{word}")["records"]
        page = get("/find?q=#{word}").body
        way = page[/plain found.*?href="([^"]+)"/m, 1]

        assert_equal [kind], found.map { |one| one["kind"] }
        assert_equal 200, get(way.sub(/#.*/, "")).status, "#{kind}: #{way}"
      end
    end

    def test_words_are_narrowed_and_slips_forgiven
      treatment = Store::Treatment.where(deleted_at: nil).exclude(note: nil).first
      treatment.update(note: "Naïve façade of bittersweet beside the kiln")
      q = treatment.patch.property

      assert_equal ["treatment"], kinds("facade kil")
      assert_empty kinds("facade chimney")
      assert_equal "facade", Store::Texts.new("fasade").nearest.words.first
      narrowed = ->(**how) do
        Store::Texts.new("kiln", **how).total
      end
      { kind: %w[treatment check], plant: [treatment.patch.plant_key, "kudzu"], property_id: [q.id, q.id + 1],
        from: [treatment.done_on, treatment.done_on + 1], to: [treatment.done_on, treatment.done_on - 1] }
        .each { |key, (right, wrong)| assert_equal [1, 0], [narrowed[key => right], narrowed[key => wrong]], key }
    end

    def test_a_person_s_new_name_finds_their_records
      person = Store::Person.first
      treatment = Store::Treatment.where(deleted_at: nil).first
      treatment.update(people_ids: JSON.generate([person.id]))
      person.update(name: "Zoltana Quist")

      assert_includes Store::Texts.new("", who: "zoltana").page.map { |one| [one.kind, one.id] },
                      ["treatment", treatment.id]
    end

    def test_strange_words_find_nothing_and_break_nothing
      ["\"", "* OR *", "who:oakes", "NEAR(a b)", "(", "-", "\u0000", "'; DROP TABLE texts; --", "a" * 5000, "ß",
       "\u202E"]
        .each do |words|
        assert_kind_of Array, Store::Texts.new(words).page
      end
      assert_equal 422, get("/find?q=trail&from=2026-02-31").status
      assert_equal 200, get("/find?q=trail&kind=nothing&plant=none&who=%22&page=99").status
    end

    def test_a_search_is_kept_and_taken_off
      send_form :post, "/find/kept", name: "Trails", asked: "q=trail&kind=patch"
      kept = Store::KeptSearch.live.first(name: "Trails")

      assert_equal "q=trail&kind=patch", kept.asked
      assert_includes get("/find").body, "/find?q=trail&amp;kind=patch"
      send_form :post, "/find/kept/#{kept.id}/drop"

      refute_includes get("/find").body, "/find?q=trail&amp;kind=patch"
      send_form :post, "/find/kept/#{kept.id}/keep"

      assert_nil kept.refresh.deleted_at
    end

    PATCH = -> { Store::Patch.live.first.id }
    MADE = {
      courses: -> { { patch_id: PATCH.call, method_key: "hand_pull", person: "J", chosen_on: "2026-05-01" } },
      local_rules: -> { { property_id: 1, about: "any", reason: "r", person: "J", said_on: "2026-05-01" } },
      sightings: -> { { property_id: 1, kind: "anchor", said: "leaf_out", seen_on: "2026-05-01", began: true } },
      pictures: -> {
        { patch_id: PATCH.call, moment: "before", taken_on: "2026-05-01", filename: "f", media: "image/png",
          bytes: Sequel.blob("x") }
      }
    }.freeze

    private

    # A live row of a table; what the demo has none of is made.
    def row_of(table)
      return sheet if table == :reports

      live = db[table].columns.include?(:deleted_at) ? { deleted_at: nil } : {}
      db[table].where(live).min(:id) || db[table].insert({ **MADE.fetch(table).call, created_at: Time.now })
    end

    def sheet
      property = Store::Property.first
      seen = Web::Identify::Desk.new({ "c" => { "habit" => "vine" } }, property, Testing::TODAY).key
      (Store::Report.first || Store::Report.write(property, seen)).id
    end
  end
end
