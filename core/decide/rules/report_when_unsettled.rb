# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        ReportWhenUnsettled = Rule.new(
          :report_when_unsettled,
          about: :reporting, looks: %i[settled new_here reported],
          source: "common_practice", force: :safety,
          says: "What is not settled, or new here, is reported first."
        ) do |now|
          if !now.settled
            go "Not settled: photographs with a scale, and a specialist's answer, come first."
          elsif now.unreported?
            go "New here: report it today, before anything is removed."
          else
            no "The name is confirmed: no report is needed."
          end
        end
      end
    end
  end
end
