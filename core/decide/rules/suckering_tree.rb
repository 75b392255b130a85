# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        SuckeringTree = Rule.new(
          :suckering_tree,
          about: %i[felling girdling], looks: %i[plant size schools],
          source: "common_practice", force: :school,
          says: "A tree that suckers is not felled or girdled untreated; its stump is treated where its file or the " \
                "school says so."
        ) do |now, removal|
          next unless now.plant.form == :tree && now.plant.is?(:root_suckers)
          unless removal.herbicide?
            next no("Felled or girdled untreated, it suckers from the roots, far around the trunk.")
          end

          differ = Knowledge.shipped.schools.fetch("suckering_trees").about?(now.plant)
          if differ && now.school(:suckering_trees) == "stump_small" &&
             %w[seedling pencil thumb wrist].include?(now.size)
            note "The school here treats the stumps of small ones; look for suckers within {length:10}."
          elsif differ
            no "Never cut first: a suckering tree is treated standing and felled when it is dead. " \
               "Another school treats small stumps."
          elsif removal.told?(now.plant)
            note "Treated within minutes, as its file says of it; " \
                 "look for suckers within {length:10}."
          else
            no "Never cut first: a suckering tree is treated standing and felled when it is dead."
          end
        end
      end
    end
  end
end
