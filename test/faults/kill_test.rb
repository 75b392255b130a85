# frozen_string_literal: true

require "test_helper"
require_relative "../../bench/kills"

module Thistle
  # The machine stops at the worst moment: what was acknowledged is there, nothing is there by half.
  class KillTest < Minitest::Test
    ROUNDS = 12 # `rake bench faults` does a thousand

    def test_kill_9_under_four_writers
      Testing.demo(fresh: true)
      property = Store::Property.first(prefix: "Q")
      kills = Kills.new(property.id, seed: Minitest.seed)

      ROUNDS.times { |n| assert_empty kills.round, "round #{n}, seed #{Minitest.seed}" }
      assert_predicate kills.acknowledged, :positive?
    ensure
      Testing.demo(fresh: true)
    end
  end
end
