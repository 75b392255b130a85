# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # What a steward is after, as knowledge/goals.yml gives it: weights {part of the score => 0 to 10}.
      Goal = Value.define(:key, :label, :text, :weights, :source)
    end
  end
end
