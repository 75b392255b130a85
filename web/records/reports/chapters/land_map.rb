# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Reports
        module Chapters
          # Where the patches lie.
          class LandMap < Chapter
            TITLE = "Map"
            MARKS = { "reported" => "dashed ring", "standing" => "solid triangle", "hit" => "struck square",
                      "regrowing" => "hollow triangle", "quiet" => "ring", "closed" => "dot" }.freeze

            private

            def write(part)
              map = Survey::SiteMap.new(property, today)
              drawn = "#{patches(map.patches.size)} drawn"
              drawn += " of #{map.all}" if map.all > map.patches.size
              states = map.states.map { |state| "#{Words.state_word(state)}: #{MARKS.fetch(state)}" }
              part.plot(@plan.draw("report_map", map:), "#{drawn}. #{states.join(", ").capitalize}.")
            end
          end
        end
      end
    end
  end
end
