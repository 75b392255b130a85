# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        DenseStand = Rule.new(
          :dense_stand,
          about: :aquatic, looks: %i[cover],
          source: "common_practice",
          says: "Dense water plants are thinned by a permitted treatment before hand pulling."
        ) do |now, removal|
          next unless removal.is?(:pulling)

          if now.cover.nil?
            note "How dense is it? Above about half cover, hand pulling does not keep up."
          elsif now.cover > 50
            no "Too dense to pull by hand: combine with a permitted treatment, then pull what is left."
          end
        end
      end
    end
  end
end
