# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        Licence = Rule.new(
          :licence,
          about: :herbicide, looks: %i[licensed],
          source: "common_practice", force: :legal,
          says: "No herbicide without someone whom the law allows to apply it."
        ) do |now|
          unless now.licensed
            no "No licensed applicator is named for this: no herbicide. Local law decides who may apply."
          end
        end
      end
    end
  end
end
