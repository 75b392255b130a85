# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        WaxyLeaves = Rule.new(
          :waxy_leaves,
          about: :foliar, looks: %i[plant schools],
          source: "common_practice", force: :school,
          says: "Barberry and olive are cut and painted, unless the school sprays small ones."
        ) do |now|
          next unless Knowledge.shipped.schools.fetch("waxy_leaves").about?(now.plant)

          if now.school(:waxy_leaves) == "spray_small"
            note "Scaly or waxy leaves take up little; " \
                 "a mix of two actives is preferred by many."
          else
            no "Its leaves take up little. The school here cuts and paints, even straw-thick stems."
          end
        end
      end
    end
  end
end
