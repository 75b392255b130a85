# frozen_string_literal: true

module Thistle
  module Core
    module Identify
      # What is to be expected on a day at a site before anyone looks: plants of the region that stand above
      # ground then, each as a mixture of aspects. Rows in the order of Chances#plants.
      class Prior
        ELSEWHERE = 0.03 # a plant that its file does not give for the region (memory)
        # weights: how likely each plant is met in that aspect; visible: {organ => row of chances that it is there}.
        Part = Value.define(:aspect, :weights, :visible)
        SUSPECTED = 1.3 # people bring what they suspect: times a harmless plant as often (memory)

        attr_reader :weights, :parts, :date, :region

        # region: a key of Regions, or nil where the property has none.
        def initialize(chances:, site:, date:, region: nil)
          @chances, @site, @date, @region = chances, site, date, region
          mixtures = chances.plants.map { |plant| Mixture.new(plant, site.calendar(plant), date) }
          @weights = mixtures.map { |mixture| expected(mixture.plant) * mixture.standing }.freeze
          @parts = chances.aspects.values.map { |aspect| part(aspect, mixtures) }.freeze
        end

        # Is the year right for what shows only in the bare season or when the year turns?
        def year_shows?(shows) = (@turn ||= Turn.new(@site, date)).shows?(shows)

        private

        def part(aspect, mixtures)
          weights = mixtures.each_with_index.map { |mixture, n| @weights[n] * mixture.shares.fetch(aspect.key) }
          visible = mixtures.map { |mixture| mixture.visible(aspect) }
          organs = Mixture::SHOWN_BY.keys.to_h { |organ| [organ, visible.map { |one| one.fetch(organ) }.freeze] }
          Part.new(aspect: aspect.key, weights: weights.freeze, visible: organs)
        end

        def expected(plant)
          (region.nil? || plant.grows_in?(region) ? 1.0 : ELSEWHERE) * (plant.invasive? ? SUSPECTED : 1.0)
        end
      end
    end
  end
end
