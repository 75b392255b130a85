# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        Wind = Rule.new(:wind, about: :foliar, source: "memory") do |now|
          next unless now.day

          wait "Wind of #{now.day.wind.round} km/h drifts spray. The label's range decides; 3 to 16 km/h is usual." unless now.day.wind.between?(3,
                                                                                                                                                 16)
        end
      end
    end
  end
end
