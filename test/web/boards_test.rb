# frozen_string_literal: true

require "nokogiri"
require "support/web"

module Thistle
  # How rooms open: what presses in each, from the records, each row a door.
  class WebBoardsTest < RackTest
    def today = Testing::TODAY
    def q = Store::Property.first(prefix: "Q")
    def page = Nokogiri::HTML5(get(@at).body)

    def test_work_opens_with_its_days_and_each_patch_with_its_move
      @at = "/work"

      assert_includes page.at_css(".row-card h3").text.squeeze(" \n").strip, "Saturday"
      moves = page.css(".row-card .move").map { |node| node.text.gsub(/\s+/, " ").strip }

      assert_includes moves, "Pull by hand: good today until Saturday common practice"
      day = Store::WorkDay.first(closed_at: nil)
      day.update(held_on: today - 1)

      assert page.at_css("a.btn[href='/work/days/#{day.id}/after']"), "a day that was held is to be written down"
      assert_includes page.text, "None is planned."
      Store::Person.first(name: "M. Oakes").update(licence_expires_on: today + 5)

      assert_includes page.text, "licensed only until May 17, 2026"
    end

    # Months of the strip together hold every open visit, and each says what its list then shows.
    def test_recheck_counts_every_visit_once
      strip = Web::Recheck::VisitStrip.new(Store::Task.due(through: Date.new(2027, 5, 31)).where(property_id: q.id),
                                           today)
      total = json("/recheck.json")["total"]

      assert_equal total, strip.columns.sum(&:count)
      strip.columns.each do |column|
        weeks = column.weeks.sum { |week| week.kinds.values.sum }

        assert_equal column.count, weeks, column.label
        query = Rack::Utils.build_query({ from: column.from, to: column.to }.compact)

        assert_equal column.count, json("/recheck.json?#{query}")["total"], column.label
      end
    end

    def test_recheck_takes_strange_days_for_none
      total = json("/recheck.json")["total"]

      %w[from=2026-13-40 from=never to=2026-02-30].each do |query|
        assert_equal total, json("/recheck.json?#{query}")["total"], query
      end
    end

    def test_mix_opens_with_the_shelf_and_what_records_lack
      @at = "/mix"

      assert_includes page.css(".row-card h3").map { |title| title.text.strip }, "Bark ester"
      assert_includes page.text, "It expires on June 30, 2026."
      assert_includes page.text, "None is chosen for Quillback Hollow preserve."
      q.update(record_rule: Core::Knowledge.shipped.records.keys.first)

      assert_match(/All \d+ records that lack something/, page.text.squeeze(" \n"))
    end

    def test_replant_opens_with_the_next_step_of_each_plan
      @at = "/replant"

      assert_includes page.text, "Count what lives of the planting"
      assert_includes page.css("a.btn").map { |link| link["href"] }, "/replant?patch=#{patch("Q-08").id}"
      Testing.planting_plan("Q-08", area: "40")

      assert_match(/Plant between \w+ \d+ and \w+ \d+, \d{4}/, page.text)
      refute_includes page.css("a.btn").map { |link| link["href"] }, "/replant?patch=#{patch("Q-08").id}"
    end

    # What opens and closes is what the moves say, soonest first.
    def test_today_says_what_opens_and_closes
      turns = Store::Moves.new([q], today).turns(31)

      assert_equal turns.map(&:on), turns.map(&:on).sort
      assert turns.any?(&:opens) && !turns.all?(&:opens)
      turns.each do |turn|
        turn.ids.each do |id|
          facts = Store::Patch[id].facts(today)
          verdict = Core::Decide::Bench.new(facts, q.site(today)).verdict(turn.removal)

          assert_equal turn.on, turn.opens ? verdict.until : verdict.closes,
                       "#{Store::Patch[id].code} #{turn.removal.key}"
        end
      end
    end
  end
end
