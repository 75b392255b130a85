# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        SapRise = Rule.new(
          :sap_rise,
          about: :stem_herbicide, looks: %i[date season],
          source: "common_practice", turns: { bud_swell: -Situation::SAP_DAYS, full_leaf: 0 },
          says: "No stem herbicide while sap rises, from weeks before bud swell to full leaf."
        ) do |now|
          next unless now.sap_rising?

          wait "Sap is rising and carries herbicide up and out of the cut, not down to the root: " \
               "weeks before the buds swell until full leaf."
        end
      end
    end
  end
end
