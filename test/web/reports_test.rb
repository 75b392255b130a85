# frozen_string_literal: true

require "open3"
require "support/web"

module Thistle
  # What is handed on: each report as page, JSON and paper that another program reads; a season's figures against its
  # lists; a plan that stays as it was said.
  class WebReportsTest < RackTest
    REPORTS = "/records/reports"
    YEAR = { "from" => "2025-01-01", "to" => "2025-12-31" }.freeze
    def q = Store::Property.first(prefix: "Q")
    def today = Testing::TODAY
    def chapters = Web::Records::Reports::ManagementPlan::CHAPTERS

    def make(**more)
      send_form :post, "#{REPORTS}/plans", made_by: "M. Oakes", years: "3", parts: chapters.keys, **more
      Store::LandPlan.live.where(property_id: q.id).reverse(:version).first
    end

    # The text of an answer that is a PDF, by poppler; skipped where that is not installed.
    def printed(path)
      get path
      assert_equal "application/pdf", last_response.media_type, path
      text, done = Open3.capture2("pdftotext", "-layout", "-", "-", stdin_data: last_response.body, binmode: true)
      assert_predicate done, :success?, path
      text.force_encoding("UTF-8").gsub(/\s+/, " ")
    rescue Errno::ENOENT
      skip "poppler-utils is not installed"
    end

    def test_every_report_says_the_same_on_page_in_json_and_on_paper
      { "season" => YEAR, "authority" => { "year" => 2025 }, "notice" => { "plant" => "garlic_mustard", "call" => "J" },
        "hours" => { "person" => Store::Person.first.id, **YEAR } }.each do |kind, asked|
        query = Rack::Utils.build_query(asked)
        told = json("#{REPORTS}/#{kind}.json?#{query}")
        page = get("#{REPORTS}/#{kind}?#{query}").body
        paper = printed("#{REPORTS}/#{kind}/paper.pdf?#{query}")

        told["parts"].each do |part|
          [page, paper].each { |text| assert_includes text, part["title"], kind }
        end
        assert_operator told["parts"].size, :>, 1, kind
      end
    end

    # Every row of what was treated is as many records as its list holds, and all rows are all of the list.
    def test_the_figures_of_a_season_are_its_records
      desk = Web::Records::Reports::SeasonDesk.new(YEAR, q, [q], today)
      table = Web::Records::Reports::SeasonReport.new(desk).parts.find { |part| part.key == "treated" }.blocks.first
      counted = table["rows"].zip(table["hrefs"]).map do |row, href|
        assert_equal row[2].to_i, json(href.sub("?", ".json?"))["total"], href
        row[2].to_i
      end
      listed = json("/records/lists/treatments.json?#{Rack::Utils.build_query(YEAR)}")

      assert_equal listed["total"], counted.sum
      hours = listed["rows"].sum { |row| row["hours"].to_f * row["crew_size"].to_i }

      assert_in_delta hours, desk.figures.hours.all
    end

    # A volunteer, an applicator who volunteers too, one who is only typed: each where they belong.
    def test_whose_hours_they_were
      people = { "volunteer" => %w[volunteer], "paid" => %w[volunteer applicator] }.to_h do |name, roles|
        [name, Store::Person.create(name: "Report #{name}", roles: JSON.generate(roles), training: "[]", cannot: "[]")]
      end
      patch = q.live_patches.first
      day = Date.new(2019, 5, 4)
      Store::Treatment.record(patch, q.site(today), done_on: day, method_key: "hand_pull", crew_size: 4, hours: 2.0,
                                                    people_ids: JSON.generate([people["volunteer"].id]),
                                                    people: "report paid and two more")
      hours = Store::SeasonFigures.new([q], day..day, today).hours

      assert_equal [2.0, 2.0, 4.0], [hours.volunteers, hours.staff, hours.unnamed]
      assert_in_delta 2.0, Web::Records::Reports::OwnHours.new(people["volunteer"], [q], day..day).parts
                                                          .first.blocks.first["items"].first.first.to_f
    end

    def test_days_that_cannot_be_are_said_beside_the_field
      get "#{REPORTS}/season?from=2026-02-31&to=nothing&worth=much"

      assert_equal 422, last_response.status
      assert_operator last_response.body.scan("bad-word").size, :>=, 3
      assert_equal 422, get("#{REPORTS}/season?from=2026-05-01&to=2026-04-01").status
      assert_equal 404, get("#{REPORTS}/nothing").status
      assert_equal 404, get("#{REPORTS}/notice?plant=none").status
    end

    # All chapters stand on page and paper, with a person's own words; what changed is said by the next version, and the
    # first says what it said.
    def test_a_plan_is_kept_as_it_was_said_and_the_next_says_what_changed
      first = make(note_goals: "Free the oaks.\nThen the stream.")

      assert_equal "made", first.status
      text = printed("#{REPORTS}/plans/#{first.id}/paper.pdf")
      page = get("#{REPORTS}/plans/#{first.id}").body
      first.parts.each { |part| [text, page].each { |one| assert_includes one, part["title"] } }
      assert_includes text, "Free the oaks."
      was = first.parts

      kind = q.live_patches.first(state: "standing")
      kind.update(state: "closed", closed_on: today)
      second = make
      changed = second.parts.find { |part| part["key"] == "changed" }["blocks"]

      assert_equal was, first.reload.parts
      assert_includes changed.find { |block| block["kind"] == "table" }["rows"].map(&:first), kind.plant.name
      assert_equal first.version + 1, second.version
    ensure
      kind&.update(state: "standing", closed_on: nil)
    end

    # A large land's plan is written apart, with its progress; one whose server stopped says so.
    def test_a_large_land_s_plan_is_written_meanwhile
      plans = Web::Records::Reports::ManagementPlan
      at_once = plans::AT_ONCE
      plans.send(:remove_const, :AT_ONCE)
      plans.const_set(:AT_ONCE, -1)
      plan = make

      page = get("#{REPORTS}/plans/#{plan.id}").body

      assert page.include?("The plan is being written") || plan.refresh.made?, "neither under way nor done"
      wait_for { plan.refresh.made? }

      assert_equal chapters.keys, plan.parts.map { |part| part["key"] }
      lost = Store::LandPlan.begin(q, made_on: today, made_by: "J", asked: { "parts" => ["goals"] })
      Store::Job.start("land_plan", lost, total: 1)
      Store::LandPlan.recover(all: true)

      assert_equal ["failed", Store::LandPlan::STOPPED], lost.refresh.values.values_at(:status, :fault)
    ensure
      plans.send(:remove_const, :AT_ONCE)
      plans.const_set(:AT_ONCE, at_once)
    end

    # Sums of a plan are those of its rows, no range turns round, and no sum until quiet mixes in what has no end.
    def test_hours_and_money_add_up
      land = Web::Records::Reports::Land.new(q, today)
      open = land.kinds.flat_map(&:open)
      whole = land.sum(open)

      assert_in_delta land.kinds.sum { |kind| land.sum(kind.open).hours&.fetch("likely").to_f }, whole.hours["likely"]
      assert_equal open.size, whole.known + whole.unknown
      [whole.hours, whole.cost, whole.hours_to_quiet, whole.cost_to_quiet].each do |range|
        assert_equal range.values_at("low", "likely", "high"), range.values_at("low", "likely", "high").sort
      end
      assert_equal whole.ending, open.count { |one| one.verdict.possible? && one.verdict.effort.hours_to_quiet }
    end

    # Nothing of it is offered to people of the land that needs a licence, fire, stock, a machine or somebody trained,
    # or stings by its sap; and each only on patches whose own move it is.
    def test_what_people_may_do_themselves_is_safe_for_anybody
      trained = Core::Knowledge.shipped.crew["needs"].flat_map { |need| need["tags"] }.map(&:to_sym)
      hard = Core::Knowledge.shipped.methods_of_removal.values.select do |removal|
        removal.herbicide? || removal.is?(:burning, :machine, :felling, :grazing, *trained)
      end

      assert_operator hard.size, :>, 12
      Store::Property.each do |property|
        names, methods = offered(property)
        plants = Core::Knowledge.shipped.plants.values.select { |plant| names.include?(plant.name) }

        assert_empty plants.select { |plant| plant.grave? || property.reports_first?(plant) }
        assert_empty hard.map(&:name) & methods, property.name
      end
    end

    # Every hazard of every patch stands in the safety chapter, not those of the largest alone; and no patch is on the
    # calendar before its own day.
    def test_each_patch_s_hazards_and_days_are_in_the_plan
      Store::Property.each do |property|
        land = Web::Records::Reports::Land.new(property, today)
        plan = Struct.new(:land, :notes, :years).new(land, {}, 1)
        said = JSON.generate(Web::Records::Reports::Chapters::Safety.new(plan).part.to_h)
        open = land.kinds.flat_map(&:open).select { |one| one.verdict.possible? }
        open.each do |one|
          land.safety(one, one.verdict.removal).hazards.each do |line|
            assert_includes said, JSON.generate(property.measures.fill(line.text))[1..-2], one.code
          end
        end
        entries = Web::Records::Reports::Chapters::Calendar.new(plan).send(:entries)
        open.select { |one| one.verdict.wait? }.each do |one|
          early = entries.select do |entry|
            entry.codes.split(/, | and /).include?(one.code) && entry.on < one.verdict.until
          end

          assert_empty early.select { |entry| entry.words == one.verdict.removal.name }, one.code
        end
      end
    end

    # A check at a time when nothing would have shown is not clean.
    def test_only_what_would_have_shown_is_clean
      days = (1..365).step(7).map { |n| Date.new(2019, 1, 1) + n }
      patch, day = q.live_patches.exclude(plant_key: nil).all.lazy.filter_map do |one|
        unseen = days.find { |on| !one.shows?(on) }
        [one, unseen] if unseen
      end.first
      Store::Check.record(patch, checked_on: day, resprouts: 0, missed: 0, seedlings: 0)
      checked = Store::SeasonFigures.new([q], day..day, today).checked

      assert_equal [1, 0, 0], [checked.checks, checked.clean, checked.patches_clean]
    end

    # Plants and methods that the chapter for the people of the land names.
    def offered(property)
      land = Web::Records::Reports::Land.new(property, today)
      plan = Struct.new(:land, :notes).new(land, {})
      by_kind = Web::Records::Reports::Chapters::Yourself.new(plan).part.blocks.group_by { |block| block["kind"] }
      lines = by_kind.fetch("list", []).drop(1).flat_map { |block| block["items"].map(&:first) }
      [by_kind.fetch("heading", []).map { |block| block["text"] }, lines.map { |line| line[/\A[^:]*/] }]
    end

    def test_strange_answers_make_no_plan
      send_form :post, "#{REPORTS}/plans", made_by: "", years: "40", parts: ["nothing"]

      assert_equal 422, last_response.status
      assert_includes last_response.body, "tick at least one chapter"
      assert_equal 404, get("#{REPORTS}/plans/999999").status
      plan = make(parts: ["goals"])
      send_form :post, "#{REPORTS}/plans/#{plan.id}/drop"

      assert_predicate plan.reload, :deleted_at
      send_form :post, "#{REPORTS}/plans/#{plan.id}/keep"

      assert_nil plan.reload.deleted_at
    end
  end
end
