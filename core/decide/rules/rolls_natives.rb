# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        RollsNatives = Rule.new(
          :rolls_natives,
          about: :rolling, looks: %i[natives_near],
          source: "common_practice",
          says: "A mat is rolled only where nothing wanted is in it."
        ) do |now|
          next if now.natives_near == false

          no "What is wanted rolls up with the mat#{" (is there any in it? not answered)" if now.natives_near.nil?}."
        end
      end
    end
  end
end
