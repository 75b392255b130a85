# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        LushTussock = Rule.new(
          :lush_tussock,
          about: :foliar, looks: %i[soil stage],
          source: "common_practice",
          says: "Tussocks are sprayed green and lush, on moist soil."
        ) do |now, removal|
          next unless removal.key == "foliar_tussock"

          lush = %i[moist wet].include?(now.soil) && %i[leaf flower].include?(now.stage)
          wait "A tussock takes spray only when green and lush on moist soil." unless lush
        end
      end
    end
  end
end
