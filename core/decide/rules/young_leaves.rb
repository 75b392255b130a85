# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        YoungLeaves = Rule.new(
          :young_leaves,
          about: :foliar, looks: %i[plant phases],
          source: "common_practice",
          says: "What lives on by its root is not sprayed while its leaves come out."
        ) do |now|
          next unless now.phases.include?(:emerging) && now.plant.is?(:crown_sprouts, :fragments_root, :root_suckers)

          wait "Its leaves are only coming out and send nothing down to the root. Wait until they are full grown."
        end
      end
    end
  end
end
