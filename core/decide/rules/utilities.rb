# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        Utilities = Rule.new(:utilities, about: :digging, source: "common_practice") do |_now|
          note "Ask first about buried lines and archaeological ground."
        end
      end
    end
  end
end
