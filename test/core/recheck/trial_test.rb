# frozen_string_literal: true

require "test_helper"

module Thistle
  # Two methods beside each other, against R and against crews whose shares are known.
  class TrialTest < Minitest::Test
    Trial = Core::Recheck::Trial

    def trial(*counts) = Trial.new(counts.map { |dead, alive| Trial::Arm.new(dead:, alive:, open: 0) })

    # R 4.2: integrate(function(x) dbeta(x, a, b) * pbeta(x, c, d), 0, 1), run once and quoted.
    def test_the_chance_of_being_better_against_r
      { [[18, 2], [13, 7]] => 0.9665239177, [[3, 1], [1, 3]] => 0.8968253968,
        [[60, 40], [54, 46]] => 0.8030121382, [[9, 1], [1, 9]] => 0.9998270563 }.each do |counts, chance|
        assert_in_delta chance, trial(*counts).first_better, 1e-9
        assert_in_delta 1 - chance, trial(*counts.reverse).first_better, 1e-9
      end
    end

    # R 4.2: integrate(function(x) (1 - pbeta(x, 14, 8)) * pbeta(x, 19, 3), 0, 1).
    def test_what_is_lost_by_choosing_wrongly_against_r
      assert_in_delta 0.00172437, trial([18, 2], [13, 7]).loss, 1e-5
    end

    def test_when_it_is_settled
      assert_equal :better, trial([18, 2], [13, 7]).settled
      assert_nil trial([3, 0], [0, 3]).settled, "six stems settle nothing"
      assert_nil trial([10, 5], [9, 6]).settled
      assert_equal :alike, trial([196, 4], [195, 5]).settled
    end

    def test_stems_are_given_out_half_and_half_then_to_the_better
      first = trial([0, 0], [0, 0]).assign(20, seed: 3)

      assert_equal [10, 10], first.tally.values_at(0, 1)
      assert_equal first, trial([0, 0], [0, 0]).assign(20, seed: 3)
      later = trial([28, 2], [18, 12]).assign(200, seed: 3)

      assert_operator later.count(0), :>, 180
      assert_operator later.count(1), :<, 20
      assert_raises(Core::BadInput) { trial([0, 0], [0, 0]).assign(1, seed: 3) }
    end

    # A crew that follows it, methods that kill 90 and 70 %: the better one is named nearly always, and gets most stems.
    def test_what_it_finds_where_the_truth_is_known
      random = Random.new(8)
      named = Array.new(60) { followed([0.9, 0.7], random) }

      assert_operator named.count { |found, _| found.zero? }, :>=, 54
      assert_operator named.sum { |_, stems| stems[0] }, :>, named.sum { |_, stems| stems[1] }
    end

    private

    # [the arm named at the end, stems of each].
    def followed(truth, random)
      dead, alive = [0, 0], [0, 0]
      12.times do |round|
        known = trial(*dead.zip(alive))
        break if known.settled

        known.assign(12, seed: random.rand(1 << 30) + round).each do |arm|
          random.rand < truth[arm] ? dead[arm] += 1 : alive[arm] += 1
        end
      end
      [trial(*dead.zip(alive)).leading, dead.zip(alive).map(&:sum)]
    end
  end
end
