# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        SmothersNeighbours = Rule.new(
          :smothers_neighbours,
          about: :covering, looks: %i[natives_near plant],
          source: "common_practice",
          says: "Nothing is smothered that is wanted."
        ) do |now, removal|
          next if now.natives_near == false
          next note("Stump by stump: what stands between them stays free.") if removal.task(now.plant).per == :stem

          no "It smothers the desirable plants among them " \
             "too#{" (are there any? not answered)" if now.natives_near.nil?}."
        end
      end
    end
  end
end
