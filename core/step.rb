# frozen_string_literal: true

module Thistle
  module Core
    # One line of a working: what was computed, how, from which numbers, on whose word.
    # A quantity in the formula is written {volume:280.5} (mL), {area:50} (m²), {mass:3} (g), {depth:90} (cm), {rate:5} (L on 100 m²), {rain:25} (mm),
    # {temperature:5} (°C) or {warmth:210} (degree days above 5 °C),
    # so that `said` can give it in the reader's units; `value` is a number of `unit` or plain words.
    Step = Value.define(:label, :formula, :value, :unit, :source) do
      def said(units)
        formula.gsub(/\{(volume|area|mass|depth|rate|rain|temperature|warmth):(-?[\d.]+)\}/) do
          units.public_send(Regexp.last_match(1), Regexp.last_match(2).to_f)
        end
      end

      def answer(units) = unit ? units.public_send(unit, value) : value.to_s

      # For JSON: the formula in metric words, the value in SI.
      def to_json_data = to_h.merge(formula: said(Units.new))
    end
  end
end
