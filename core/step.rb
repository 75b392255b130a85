# frozen_string_literal: true

module Thistle
  module Core
    # One line of a working: what was computed, how, from which numbers, on whose word.
    Step = Value.define(:label, :formula, :value, :unit, :source)
  end
end
