# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        Utilities = Rule.new(
          :utilities,
          about: :digging, looks: [],
          source: "common_practice", force: :safety,
          says: "Buried lines and old ground are asked about before anyone digs."
        ) do |_now|
          note "Ask first about buried lines and archaeological ground."
        end
      end
    end
  end
end
