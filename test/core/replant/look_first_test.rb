# frozen_string_literal: true

require "test_helper"

module Thistle
  # Plant or wait, against the closed form of the logistic, and by what must move it which way.
  class LookFirstTest < Minitest::Test
    LookFirst = Core::Replant::LookFirst
    FREE = [[0.0, 0.001, 0.01]] * 4

    def ask(natives, invader: FREE, slope: "flat", bare: 0.6, seedlings: 0.2)
      LookFirst.new(natives:, bare:, slope:, invader:, seedlings:).answer
    end

    # n(t) = 1 / (1 + (1 - n0) / n0 · e^(-rt)) (Verhulst), to within the steps of a month.
    def test_spreading_alone_is_the_logistic
      found = LookFirst.spread(0.1, 1.0, [0.0] * 4)

      (1..4).each { |year| assert_in_delta 1 / (1 + (9 * Math.exp(-year))), found[year - 1], 0.025 }
      assert_operator LookFirst.spread(0.1, 1.0, [0.3] * 4).last, :<, found.last
    end

    def test_more_natives_wait_and_more_invader_plants
      some_invader = [[0.02, 0.1, 0.35]] * 4
      many, some, none = %w[many some none].map { |natives| ask(natives, invader: some_invader) }

      assert_equal %i[wait gaps plant], [many.kind, some.kind, none.kind]
      assert_operator many.odds, :>, some.odds
      assert_operator some.odds, :>, none.odds
      pressed = ask("many", invader: [[0.1, 0.3, 0.6]] * 4)

      assert_operator pressed.odds, :<, many.odds / 2
      assert_equal ask("some"), ask("some"), "the same question, another answer"
    end

    def test_what_is_not_known_is_a_question_and_steep_ground_does_not_wait
      assert_equal [:look, nil], ask(nil).to_h.values_at(:kind, :odds)
      assert_equal :plant, ask("many", slope: "steep", bare: 0.8).kind
      assert_equal :wait, ask("many", slope: "steep", bare: 0.1).kind
      assert_match(/Sow nothing until these seedlings are gone/, ask("some", seedlings: 40.0).reasons.map(&:text).join)
      assert_raises(Core::BadInput) { ask("plenty") }
    end
  end
end
