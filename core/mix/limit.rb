# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # What a label allows of an acid on a hectare in a year, against what lies there and what is planned.
      Limit = Value.define(:acid, :lies, :planned, :most, :source) do
        # After what is planned, g on a hectare.
        def after = lies + planned
        def over? = !most.nil? && after > most + 1e-6
        def left = most && [most - lies, 0].max
      end
    end
  end
end
