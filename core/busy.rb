# frozen_string_literal: true

module Thistle
  module Core
    # What would be done at another moment: too many ask at once. Nothing is wrong with what was sent.
    class Busy < BadInput
    end
  end
end
