# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        NestingSeason = Rule.new(
          :nesting_season,
          about: :mulching, looks: %i[date season],
          source: "memory", turns: [[:leaf_out, -20], [:leaf_out, 101]],
          says: "Thickets are not mulched while birds nest in them."
        ) do |now|
          leafing = now.anchor(:leaf_out) or next
          wait "Birds nest in thickets now." if now.date.between?(leafing - 20, leafing + 100)
        end
      end
    end
  end
end
