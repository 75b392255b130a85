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

          wait "The sap is rising and would carry herbicide out of the cut. It rises from some weeks before " \
               "bud swell until full leaf."
        end
      end
    end
  end
end
