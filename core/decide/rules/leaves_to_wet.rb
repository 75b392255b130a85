# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        LeavesToWet = Rule.new(:leaves_to_wet, about: :foliar, source: "common_practice") do |now|
          wait "No green leaf to take it up." unless now.in_leaf?
        end
      end
    end
  end
end
