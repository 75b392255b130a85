# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        Stance = Rule.new(
          :stance,
          about: :herbicide, looks: %i[stance],
          source: "common_practice", force: :school,
          says: "The herbicide school of this ground decides what may be used at all."
        ) do |now, removal|
          if now.stance == "none"
            no "This ground is kept without herbicide."
          elsif removal.herbicide == :foliar && now.stance != "any"
            no "This property allows herbicide on stems only: no leaf spraying."
          end
        end
      end
    end
  end
end
