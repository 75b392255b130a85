# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        LateSummerFlow = Rule.new(
          :late_summer_flow,
          about: %i[bark_herbicide], looks: %i[plant date season],
          source: "common_practice", turns: { full_leaf: 45, first_frost: 1 },
          says: "Suckering trees are hacked and squirted from midsummer to frost."
        ) do |now, removal|
          next unless now.plant.form == :tree && now.plant.is?(:root_suckers) && removal.key == "hack_and_squirt"

          from = now.anchor(:full_leaf)&.+(45)
          to = now.anchor(:first_frost)
          next unless from && to

          unless now.date.between?(from, to)
            wait "Mid to late summer is when sap goes down to the roots; earlier, the roots live and sucker."
          end
        end
      end
    end
  end
end
