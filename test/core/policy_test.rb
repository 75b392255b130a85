# frozen_string_literal: true

require "test_helper"

module Thistle
  # Who may do what, by a small table of its own and by the shipped one.
  class PolicyRulesTest < Minitest::Test
    SMALL = { "own_days" => 3, "roles" => { "lead" => { "text" => "lead", "says" => "leads" } },
              "things" => { "day" => { "text" => "a day", "read" => ["lead"],
                                       "own" => { "read" => ["volunteer"] } } } }.freeze

    def policy = @policy ||= Core::Policy.new(SMALL)

    def test_what_does_not_stand_there_is_not_allowed
      assert policy.allows?(%w[volunteer lead], "read", "day")
      refute policy.allows?(["volunteer"], "read", "day")
      refute policy.allows?(["lead"], "add", "day")
      refute policy.allows?([], "read", "day")
      assert policy.own?(["volunteer"], "read", "day")
      refute policy.own?(["lead"], "read", "day")
    end

    def test_what_is_unknown_is_said
      assert_raises(KeyError) { policy.allows?(["lead"], "read", "night") }
      assert_raises(KeyError) { policy.allows?(["lead"], "steal", "day") }
    end

    # Nobody but a steward or keeper gives roles, keys or links; nobody but a steward turns a rule of the place.
    def test_the_shipped_table_gives_no_keys_away
      shipped = Core::Knowledge.shipped.policy
      others = %w[lead applicator volunteer landowner signed_in]
      keys = %w[member guest_link keeping trail outbox whole rules settings calendar_key people answer]
      given = keys.product(%w[add change take_back]).select { |thing, act| shipped.allows?(others, act, thing) }

      assert_empty given
    end
  end
end
