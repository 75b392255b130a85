# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        NameNotSettled = Rule.new(:name_not_settled, about: :any, source: "common_practice") do |now, removal|
          next if now.settled || %w[report_only tag_and_return].include?(removal.key)

          no "The name is not settled. Photograph, report, and leave the plant standing."
        end
      end
    end
  end
end
