# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        ToolsAtHand = Rule.new(
          :tools_at_hand,
          about: :any, looks: %i[tools],
          source: "common_practice",
          says: "Each method needs its tools."
        ) do |now, removal|
          next if now.tools.nil?

          lacking = removal.kit - now.tools
          if lacking.any?
            no "Not at hand: #{lacking.map { |key| Knowledge.shipped.kit.fetch(key)["text"] }.join("; ")}."
          end
        end
      end
    end
  end
end
