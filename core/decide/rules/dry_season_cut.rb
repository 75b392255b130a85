# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        DrySeasonCut = Rule.new(
          :dry_season_cut,
          about: :dry_cut, looks: %i[climate date season],
          source: "common_practice", turns: [[:first_rains, -45], [:first_rains, 1]],
          says: "The late dry cut is for winter-wet climates, just before the rains."
        ) do |now|
          unless now.climate == "winter_wet"
            next no("Only where winters are wet and summers dry: there the root is at its weakest before the rains.")
          end

          rains = now.anchor(:first_rains)
          if rains.nil? || !now.date.between?(rains - 45, rains)
            wait "Just before the rains, the last six weeks of the dry season, it has least to sprout from."
          else
            go "The dry season is ending: cut level with the ground."
          end
        end
      end
    end
  end
end
