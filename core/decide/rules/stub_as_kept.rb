# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        StubAsKept = Rule.new(
          :stub_as_kept,
          about: :felling, looks: %i[schools],
          source: "common_practice", force: :school,
          says: "How high a treated stump is cut, and how strong it is painted, by the school of this ground."
        ) do |now, removal|
          next unless removal.herbicide?

          height = { "low" => "10 to 15 cm (4 to 6 in) high, so that it shows", "flush" => "flush",
                     "flag" => "climbers at shoulder height as a flag, and low" }.fetch(now.school(:cut_height))
          strength = { "label" => "at the label’s own cut-stump rate",
                       "half" => "at about half strength, " \
                                 "where the label allows it" }.fetch(now.school(:stump_strength))
          note "Cut #{height}; painted #{strength}."
        end
      end
    end
  end
end
