# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        # Only what can be undone, or stops seed, goes before the report.
        NewHere = Rule.new(
          :new_here,
          about: :any, looks: %i[new_here reported],
          source: "common_practice", force: :legal,
          says: "What is new to the region is reported before it is removed."
        ) do |now, removal|
          next if !now.unreported? || removal.is?(:reporting, :marking, :seed_stop)

          no "This plant is new to the region or on the watch list. Report it first. The region's authority says " \
             "what to do."
        end
      end
    end
  end
end
