# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        SeveredVines = Rule.new(
          :severed_vines,
          about: :freeing, looks: [],
          source: "common_practice", force: :safety,
          says: "Severed climbers are never pulled down."
        ) do |_now|
          go "Cutting a climber frees its tree at once, in any season. Never pull severed stems down: " \
             "they bring limbs with them."
        end
      end
    end
  end
end
