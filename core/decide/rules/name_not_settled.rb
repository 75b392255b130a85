# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        NameNotSettled = Rule.new(
          :name_not_settled,
          about: :any, looks: %i[settled],
          source: "common_practice", force: :safety,
          says: "What is not settled by name stays standing."
        ) do |now, removal|
          next if now.settled || %w[report_only tag_and_return seed_collect].include?(removal.key)

          no "The name is not settled. Photograph, report, bag its seed if it bears any, and leave the plant standing."
        end
      end
    end
  end
end
