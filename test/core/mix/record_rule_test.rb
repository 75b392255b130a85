# frozen_string_literal: true

require "test_helper"

module Thistle
  # Complete and incomplete records, and their days. The federal rule as CHECKS.md has it (7 CFR 110.3, recalled).
  class RecordRuleTest < Minitest::Test
    FEDERAL, STRICT = Core::Knowledge.shipped.records.values_at("us_federal", "strict")
    WHOLE = { product: "Stump concentrate", registration: "QH-41", amount: 500.0, mix: 900.0, started: "09:00",
              ended: "11:00", place: "Q-05", area: 5000.0, site: "preserve", target: "Lonicera maackii",
              applicator: "R. Lindqvist", certification: "C-7", category: "natural areas", weather: "[]",
              equipment: "jar", left_over: 0.0, expiry: Date.new(2027, 1, 1), done_on: Date.new(2026, 5, 12),
              written_on: Date.new(2026, 5, 12) }.freeze

    # what is left out or changed, what the federal rule misses, what the stricter one does
    TABLE = [[{}, [], []],
             [{ certification: nil }, [:certification], [:certification]],
             [{ registration: "", area: nil }, %i[registration area], %i[registration area]],
             [{ area: 100.0, certification: nil, applicator: nil }, [], %i[applicator certification]],
             [{ area: 100.0, registration: nil }, [:registration], [:registration]],
             [{ area: 100.0, day_area: 500.0, applicator: nil }, [:applicator], [:applicator]],
             [{ area: 404.7, applicator: nil }, [:applicator], [:applicator]],
             [{ area: 404.6, amount: nil }, [:amount], [:amount]],
             [{ weather: nil, started: nil, left_over: nil }, [], %i[started weather left_over]],
             [{ expiry: Date.new(2026, 5, 11) }, [], [:expiry]],
             [{ expiry: Date.new(2026, 5, 12) }, [], []]].freeze

    def record(**changes) = Core::Mix::ApplicationRecord.new(**WHOLE, **changes)

    def test_what_is_missing
      TABLE.each do |changes, federal, strict|
        assert_equal federal, FEDERAL.missing(record(**changes)), changes
        assert_equal strict, STRICT.missing(record(**changes)), changes
      end
      assert FEDERAL.spot?(record(area: 100.0))
      refute FEDERAL.spot?(record(area: nil)), "what nobody measured is no spot"
    end

    # Fourteen days over the end of February in a leap year and over the change of the clock; two years from a day that
    # the later year does not have.
    def test_days
      leap = record(done_on: Date.new(2028, 2, 29), written_on: Date.new(2028, 3, 15))

      assert_equal Date.new(2028, 3, 14), FEDERAL.due_on(leap)
      assert FEDERAL.late?(leap)
      assert_equal Date.new(2030, 3, 1), FEDERAL.keep_until(leap)
      spring = record(done_on: Date.new(2026, 3, 1), written_on: Date.new(2026, 3, 15))

      refute FEDERAL.late?(spring)
      assert_equal Date.new(2026, 3, 2), STRICT.due_on(spring)
      assert_equal Date.new(2028, 3, 1), FEDERAL.keep_until(spring)
    end
  end
end
