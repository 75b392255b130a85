# frozen_string_literal: true

require "test_helper"

module Thistle
  class PracticeTest < Minitest::Test
    Practice = Core::Identify::Practice
    TODAY = Testing::TODAY

    def answers(*rows)
      rows.map { |plant, answer, days_ago| Practice::Answer.new(plant:, answer:, on: TODAY - days_ago) }
    end

    def plants(*keys) = keys.map { |key| Testing.plant(key) }
    def practice(rows, *keys) = Practice.new(answers(*rows), plants: plants(*keys), today: TODAY)

    # Spaced by hand: after one right answer a day, after two 3, three 7; a miss starts over today.
    def test_answers_come_back_spaced_over_days
      due = ->(*rows) { practice(rows, "kudzu").due_on(Testing.plant("kudzu")) - TODAY }

      assert_equal 0, due.call
      assert_equal 1, due.call(%w[kudzu kudzu].push(0))
      assert_equal 3 - 1, due.call(["kudzu", "kudzu", 2], ["kudzu", "kudzu", 1])
      assert_equal 7, due.call(["kudzu", "kudzu", 9], ["kudzu", "kudzu", 5], ["kudzu", "kudzu", 0])
      assert_equal 0, due.call(["kudzu", "kudzu", 9], ["kudzu", "hog_peanut", 0])
    end

    def test_a_miss_comes_first_and_names_the_pair_to_study
      rows = [["wahoo", "burning_bush", 0], ["burning_bush", "wahoo", 0], ["kudzu", "hog_peanut", 1],
              ["spicebush", "spicebush", 0]]
      asked = practice(rows, "spicebush", "wahoo", "christmas_fern")

      assert_equal "wahoo", asked.next_plant(Random.new(1)).key
      assert_equal ["burning_bush", "wahoo", 2], asked.pairs.first.to_a
      assert_equal %w[burning_bush], asked.rivals(Testing.plant("wahoo"))
      assert_equal({ "burning_bush" => 1 }, asked.confusion["wahoo"])
      assert_in_delta 0.25, asked.share_right
      assert_equal "wahoo", practice([], "christmas_fern", "wahoo").next_plant(Random.new(1)).key,
                   "look-alikes before plants that nobody mixes up"
    end

    # Every card can be answered: the plant is among the names and the looks point to it rather than to the others.
    def test_cards_can_be_answered
      site = Testing.site
      dealt = Core::Knowledge.shipped.plants.values.map do |plant|
        Core::Identify::Card.new(plant, seed: 3, site:, date: Date.new(2026, 7, 1))
      end
      dealt.each do |card|
        assert_includes card.names, card.plant
        assert_equal Core::Identify::Card::NAMES, card.names.uniq.size
        assert(card.looks.keys.none?(&:touch))
      end
      best = dealt.count do |card|
        key = Core::Identify::Key.new(card.looks.transform_keys(&:key), site:, date: card.date)
        card.names.max_by { |name| key.probability(name) } == card.plant
      end

      assert_operator best, :>=, 0.9 * dealt.size
      again = Core::Identify::Card.new(dealt.first.plant, seed: 3, site:, date: Date.new(2026, 7, 1))

      assert_equal [dealt.first.looks, dealt.first.names], [again.looks, again.names]
    end

    # What would you do is judged by the bench, not by the card.
    def test_moves_are_judged_by_the_bench
      40.times do |seed|
        asked = Core::Decide::Question.new(Core::Knowledge.shipped.invaders[seed * 2], seed:, site: Testing.site)
        going = Core::Decide::Bench.new(asked.facts, Testing.site).going.map(&:key)

        asked.removals.select(&:removes?)
             .each { |removal| assert_equal going.include?(removal.key), asked.right?(removal.key) }
        refute asked.right?("no_such_method")
      end
    end
  end
end
