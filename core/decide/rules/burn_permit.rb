# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        BurnPermit = Rule.new(
          :burn_permit,
          about: :burning, looks: %i[burn_permit],
          source: "common_practice", force: :legal,
          says: "Nothing is burned without a permit and a trained crew."
        ) do |now|
          next if now.burn_permit

          asked = now.burn_permit.nil? ? "are there both? not answered" : "not both here"
          no "A permit and a trained burn crew: #{asked}. Without them nothing is lit."
        end
      end
    end
  end
end
