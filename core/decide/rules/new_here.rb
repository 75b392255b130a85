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

          no "New to this region, or watched for here: report it first, and let whoever answers for the region say " \
             "what is done."
        end
      end
    end
  end
end
