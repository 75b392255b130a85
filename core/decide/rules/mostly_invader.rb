# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        MostlyInvader = Rule.new(
          :mostly_invader,
          about: :mulching, looks: %i[cover],
          source: "common_practice",
          says: "Machine mulching is for thickets that are almost only the invader."
        ) do |now|
          if now.cover.nil?
            no "How much of it is the invader? Not answered; a machine takes everything."
          elsif now.cover < 75
            no "Too much else stands in it: the machine takes everything."
          end
        end
      end
    end
  end
end
