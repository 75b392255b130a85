# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        Wind = Rule.new(:wind, about: :foliar, source: "memory") do |now|
          next if now.day.nil? || now.day.wind.between?(3, 16)

          wait "Wind of #{now.day.wind.round} km/h drifts spray. The label's range decides; 3 to 16 km/h is usual."
        end
      end
    end
  end
end
