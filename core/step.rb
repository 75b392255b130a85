# frozen_string_literal: true

module Thistle
  module Core
    # One line of a working: what was computed, how, from which numbers, on whose word.
    # Quantities in the formula are written as Units#fill reads them, so that `said` gives them in the reader's units;
    # `value` is a number of `unit` or plain words.
    Step = Value.define(:label, :formula, :value, :unit, :source) do
      def said(units) = units.fill(formula)

      def result(units) = unit ? units.public_send(unit, value) : value.to_s

      # For JSON: the formula in metric words, the value in SI.
      def to_json_data = to_h.merge(formula: said(Units.new))
    end
  end
end
