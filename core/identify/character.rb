# frozen_string_literal: true

module Thistle
  module Core
    module Identify
      # Something to look at: its states, how often a careful volunteer gets it wrong, how much effort it takes,
      # which phase the plant must be in, and whether it means touching (cut, dig, crush, break).
      Character = Value.define(:key, :label, :hint, :shows, :error, :effort, :touch, :states)
    end
  end
end
