# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        FloodPlain = Rule.new(:flood_plain, about: :covering, source: "common_practice") do |now|
          no "High water lifts mulch and carries fragments off." if now.near_water?
        end
      end
    end
  end
end
