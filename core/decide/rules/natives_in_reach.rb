# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        NativesInReach = Rule.new(
          :natives_in_reach,
          about: :foliar, looks: %i[natives_near date season],
          source: "common_practice", turns: { bud_swell: 0, third_frost: 1 },
          says: "No leaf spray where desirable plants are in reach, until they are dormant."
        ) do |now|
          dormant = !now.date.between?(now.anchor(:bud_swell) || now.date, now.anchor(:third_frost) || now.date)
          next if now.natives_near == false || dormant

          asked = " (are there any? not answered)" if now.natives_near.nil?
          wait "Spray reaches the desirable plants beside it#{asked}. Once they are dormant it does not."
        end
      end
    end
  end
end
