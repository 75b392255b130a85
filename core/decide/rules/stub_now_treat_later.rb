# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        StubNowTreatLater = Rule.new(
          :stub_now_treat_later,
          about: :topping, looks: %i[schools date season licensed stance],
          source: "common_practice", force: :school, turns: { bud_swell: -Situation::SAP_DAYS, full_leaf: 0 },
          says: "A stub is cut tall only where that school is kept, and only while it cannot be treated."
        ) do |now, removal|
          next unless removal.is?(:marking)
          next no("Here nothing is cut before it can be treated.") unless now.school(:cut_when) == "tall_stub"

          if now.sap_rising? || !now.licensed || now.stance == "none"
            go "It cannot be treated now: cut tall, mark, and make the low cut in season."
          else
            no "Stem work is in season: cut low and treat at once."
          end
        end
      end
    end
  end
end
