# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        SapRise = Rule.new(
          :sap_rise,
          about: :stem_herbicide, looks: %i[date season],
          source: "common_practice", turns: { bud_swell: 0, full_leaf: 0 },
          says: "No stem herbicide while sap rises, from bud swell to full leaf."
        ) do |now|
          full_leaf = now.anchor(:full_leaf)
          rising = now.date.between?(now.anchor(:bud_swell) || (now.date + 1), full_leaf ? full_leaf - 1 : now.date)
          wait "Sap is rising and carries herbicide up and out of the cut, not down to the root, until full leaf." if rising
        end
      end
    end
  end
end
