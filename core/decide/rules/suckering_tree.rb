# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        SuckeringTree = Rule.new(:suckering_tree, about: %i[felling girdling], source: "common_practice") do |now, removal|
          next unless now.plant.form == :tree && now.plant.is?(:root_suckers)

          if removal.herbicide?
            no "Never cut first: a suckering tree is treated standing and felled when it is dead. Another school treats small stumps."
          else
            no "Felled or girdled untreated, it suckers from the roots many metres around."
          end
        end
      end
    end
  end
end
