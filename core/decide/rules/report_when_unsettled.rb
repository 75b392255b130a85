# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        ReportWhenUnsettled = Rule.new(:report_when_unsettled, about: :reporting, source: "common_practice") do |now|
          if now.settled
            no "The name is settled: there is better to do than report."
          else
            go "Not settled: photographs with a scale, and a specialist's answer, come first."
          end
        end
      end
    end
  end
end
