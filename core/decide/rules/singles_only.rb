# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        SinglesOnly = Rule.new(
          :singles_only,
          about: :any, looks: %i[cover few plant],
          source: "common_practice",
          says: "What is for single plants is not for a stand: the spade circle, a lever under a tree that suckers."
        ) do |now, removal|
          if removal.key == "spade_circle" && now.cover && now.cover > 50
            no "A colony this dense is covered, rolled or stripped; the spade is for single plants."
          elsif removal.told(now.plant)&.key?("singles") && !now.few
            no "Only for one or a few plants#{" (not counted here)" if now.few.nil?}. In a dense patch, the roots " \
               "that stay resprout with more stems."
          end
        end
      end
    end
  end
end
