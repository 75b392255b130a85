# frozen_string_literal: true

require "yaml"
require "test_helper"

module Thistle
  # What follows from records, by a table that reads as sentences, and by the property that the order of entry says
  # nothing.
  class FollowUpTest < Minitest::Test
    FollowUp = Core::Recheck::FollowUp
    Record = Core::Recheck::Story::Record
    Life = Core::Recheck::PatchLife
    WORK = { "pull" => "hand_pull", "cut_stump" => "cut_stump", "tag" => "tag_and_return", "stub" => "tall_marker_cut",
             "flag" => "limb_up_and_flag",
             "bag" => "seed_collect", "report" => "report_only" }.freeze
    CASES = YAML.safe_load_file("#{ROOT}/test/fixtures/follow_ups.yml")

    def record(line, id)
      word, day = line.split
      on = Date.iso8601(day)
      case word
      when "clean", "live" then Record.new(kind: :check, id:, on:, live: word == "live", note: "Treat again")
      when "settled", "unsettled" then Record.new(kind: :observation, id:, on:, settled: word == "settled")
      else Record.new(kind: :treatment, id:, on:, method: WORK.fetch(word),
                      removes: Core::Knowledge.shipped.removal(WORK.fetch(word)).removes?)
      end
    end

    def visits_of(record, asks)
      word = WORK.key(record.method)
      asks.fetch(word, []).map do |line|
        kind, days, rain = line.split
        event = rain && Core::Season::Event.read("rain_mm" => 20)
        happened = rain && rain[/\d{4}-\d\d-\d\d/]&.then { |day| Date.iso8601(day) }
        Core::Recheck::Returns::Visit.new(key: "#{word}_#{days}", kind:, due_on: record.on + days.to_i, text: line,
                                          source: "memory", event:, happened_on: happened)
      end
    end

    def asked(line, id)
      kind, due, since = line.split
      FollowUp::Asked.new(id:, kind:, due_on: Date.iso8601(due), since: Date.iso8601(since))
    end

    # Visits as the table says them.
    def answer(row, lines = row["records"])
      records = lines.each_with_index.map { |line, n| record(line, n + 1) }
      returns = records.select { |one| one.kind == :treatment }
                       .to_h { |one| [one.id, visits_of(one, row.fetch("asks", {}))] }
      wishes = row.fetch("hand", []).each_with_index.map { |line, n| asked(line, n + 1) }
      visits = FollowUp.new(records, returns:, asked: wishes).visits
      open, done = visits.partition { |visit| visit.done_on.nil? }
      [open.map { |v| "#{v.kind} #{v.due_on}" }.sort,
       done.map { |v| "#{v.kind} #{v.due_on} by #{v.done_by[/\A\w+/]} on #{v.done_on}" }.sort]
    end

    # Two plantings of one day ask for one count: it is open until both have it, or a person says that it is made.
    def test_what_two_plantings_ask_for_is_open_until_both_have_it
      day = Date.new(2026, 4, 20)
      care = Core::Replant::FirstYears::Care.new(key: "count:#{day}", due_on: day + 365, text: "Count", since: day,
                                                 closes: :counted)
      asked = ->(first, second, made = {}) do
        beds = [first, second].each_with_index.map do |counted, n|
          FollowUp::Planting.new(id: n + 1, cares: [care], planted: [[day, n]], counted:, made:)
        end
        FollowUp.new([], plantings: beds).visits.map { |visit| [visit.kind, visit.done_on, visit.done_by] }
      end
      early, due = [[day + 60, 7]], [[day + 340, 8]]

      assert_equal [["planting", nil, nil]], asked[[], []]
      assert_equal [["planting", nil, nil]], asked[due, []], "the other one is not counted yet"
      assert_equal [["planting", nil, nil]], asked[early, due], "counted long before its day"
      assert_equal [["planting", day + 340, "counted:8"]], asked[due, due]
      assert_equal [["planting", day + 300, "hand"]], asked[[], [], { "g2:count:#{day}" => day + 300 }]
    end

    def test_each_sentence_holds_in_any_order_of_entry
      assert_operator CASES.size, :>=, 40
      CASES.each do |row|
        wanted = [row.fetch("open", []).sort, row.fetch("done", []).sort]
        row["records"].permutation.first(24)
                      .each { |lines| assert_equal wanted, answer(row, lines), "#{row["it"]}: #{lines.join(", ")}" }
      end
    end

    # The same for stories that nobody wrote.
    def test_random_stories_in_another_order_give_the_same_visits
      random = Random.new(12)
      words = WORK.keys + %w[clean live settled]
      asks = { "pull" => ["check 21", "check 365"], "cut_stump" => ["check 200"], "tag" => ["treat 90"],
               "stub" => ["treat 60"], "bag" => ["check 14"] }
      150.times do
        lines = Array.new(random.rand(2..9)) do
          "#{words.sample(random:)} " \
            "#{Date.new(2024, 1, 1) + random.rand(700)}"
        end.uniq
        row = { "asks" => asks, "hand" => ["check #{Date.new(2025, 1, 1) + random.rand(500)} 2024-06-01"] }

        assert_equal answer(row, lines), answer(row, lines.shuffle(random:)), lines.join(", ")
      end
    end

    def step(id, kind, method, due, **said)
      FollowUp::Step.new(id:, kind:, method:, due_on: Date.iso8601(due), text: "Step #{id}", source: "memory", **said)
    end

    def course(*steps, left_on: nil) = FollowUp::Course.new(id: 1, chosen_on: Date.new(2025, 3, 1), left_on:, steps:)

    STEPS = [[1, "seed", "seed_collect", "2025-05-10"], [2, "treat", "hand_pull", "2025-06-01"],
             [3, "disposal", nil, "2025-06-01"],
             [4, "check", nil, "2025-07-01"], [5, "treat", "hand_pull", "2026-06-01"]].freeze

    # [open tasks, {step => day}] of a course after some records.
    def carried(lines, left_on: nil, said: {})
      steps = STEPS.map { |row| step(*row, **said.fetch(row.first, {})) }
      answer = FollowUp.new(lines.each_with_index.map { |line, n| record(line, n + 1) },
                            courses: [course(*steps, left_on:)])
      [answer.visits.select { |visit| visit.from == [:course, 1] }.map { |visit| visit.key[/\d+\z/].to_i },
       answer.steps.compact.transform_values { |done| done.on.iso8601 }]
    end

    def test_a_course_asks_for_its_next_step_until_it_is_done
      assert_equal [[1], {}], carried([])
      assert_equal [[1], {}], carried(["cut_stump 2025-05-12"]), "another method leaves its task"
      assert_equal [[1], {}], carried(["bag 2025-02-01"]), "what was done before it was chosen says nothing"
      assert_equal [[2], { 1 => "2025-05-12" }], carried(["bag 2025-05-12"])
      assert_equal [[5], { 1 => "2025-05-12", 2 => "2025-06-02", 3 => "2025-06-02" }],
                   carried(["pull 2025-06-02", "bag 2025-05-12"])
      assert_equal [[5], { 1 => "2025-05-12", 2 => "2025-06-02", 3 => "2025-06-02", 4 => "2025-06-28" }],
                   carried(["clean 2025-06-28", "pull 2025-06-02", "bag 2025-05-12"])
      assert_equal [[], { 1 => "2025-05-12" }], carried(["bag 2025-05-12"], left_on: Date.new(2025, 5, 20)),
                   "a course that was left asks for nothing"
      assert_equal [[2], { 1 => "2025-05-01" }],
                   carried([], said: { 1 => { said: "done", said_on: Date.new(2025, 5, 1) } })
      assert_equal [[1], {}], carried(["bag 2025-05-12"], said: { 1 => { said: "open" } }),
                   "a person's word goes before the records"
    end

    def clean(day, shows: true) = Record.new(kind: :check, on: Date.iso8601(day), live: false, shows:)

    # PRACTICE.md section 10: two clean looks a day apart, or in winter when nothing would show, say nothing.
    def test_looks_that_are_no_looks
      hit = [Record.new(kind: :observation, on: Date.new(2024, 5, 1), settled: true),
             Record.new(kind: :treatment, on: Date.new(2024, 6, 1), removes: true)]
      { [%w[2024-08-01]] => ["quiet", 1], [%w[2024-08-01 2024-08-02]] => ["quiet", 1],
        [%w[2024-08-01 2024-08-01]] => ["quiet", 1],
        [%w[2024-08-01 2024-08-15]] => ["closed", 2],
        [%w[2024-08-01 2024-08-02 2024-08-15]] => ["closed", 2] }.each do |(days), (state, counted)|
        life = Life.new(hit + days.map { |day| clean(day) })

        assert_equal [state, counted], [life.state, life.clean_checks], days.join(", ")
      end
      winter = Life.new([*hit, clean("2025-01-10", shows: false)])

      assert_equal ["hit", 0], [winter.state, winter.clean_checks]
    end
  end
end
