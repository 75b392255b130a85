# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        RightStage = Rule.new(
          :right_stage,
          about: :any, looks: %i[plant stage phases],
          source: "common_practice",
          says: "Where a plant's file gives the stage for a method, it is done then."
        ) do |now, removal|
          stages = removal.told(now.plant)&.fetch("at", nil) or next
          next if stages.include?(now.stage.to_s) || (stages.include?("budding") && now.phases.include?(:budding))

          wait "Only at the right stage. #{removal.told(now.plant)["text"]}"
        end
      end
    end
  end
end
