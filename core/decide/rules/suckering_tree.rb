# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        SuckeringTree = Rule.new(
          :suckering_tree,
          about: %i[felling girdling], looks: %i[plant size schools],
          source: "common_practice", force: :school,
          says: "A tree that suckers is not felled or girdled untreated; small stumps only by the school that treats them."
        ) do |now, removal|
          next unless now.plant.form == :tree && now.plant.is?(:root_suckers)

          if removal.herbicide? && now.school(:suckering_trees) == "stump_small" && %w[seedling pencil thumb wrist].include?(now.size)
            note "The school here treats the stumps of small ones; look for suckers within 10 m."
          elsif removal.herbicide?
            no "Never cut first: a suckering tree is treated standing and felled when it is dead. Another school treats small stumps."
          else
            no "Felled or girdled untreated, it suckers from the roots many metres around."
          end
        end
      end
    end
  end
end
