# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        Licence = Rule.new(:licence, about: :herbicide, source: "common_practice") do |now|
          no "No licensed applicator is named for this: no herbicide. Local law decides who may apply." unless now.licensed
        end
      end
    end
  end
end
