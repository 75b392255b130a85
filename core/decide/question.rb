# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # "What would you do?": a patch of a plant on a day, methods to choose from, judged by the bench's verdicts.
      # The same seed asks the same question.
      class Question
        SHOWN = 4

        attr_reader :facts, :plant

        def initialize(plant, seed:, site:, knowledge: Knowledge.shipped)
          @plant, @site, @knowledge = plant, site, knowledge
          @random = Random.new(seed)
          @facts = imagine
        end

        # Methods to choose from: at least one that is right today, where there is one.
        def removals
          @removals ||= begin
            right, wrong = bench.verdicts.partition(&:go?).map { |list| list.shuffle(random: @random).map(&:removal) }
            (right.first(2) + wrong).first(SHOWN).shuffle(random: @random)
          end
        end

        def verdict(key) = bench.verdicts.find { |verdict| verdict.removal.key == key.to_s }
        def right?(key) = verdict(key)&.go? || false
        def stage = bench.situation.stage
        def soil = bench.situation.soil

        private

        def bench = @bench ||= Bench.new(facts, @site, knowledge: @knowledge)

        def imagine
          Facts.new(plant:, settled: true, date: @site.today, size: @random.rand < 0.5 ? "seedling" : "thumb",
                    soil: %i[dry moist moist saturated].sample(random: @random),
                    stance: %w[none stem any].sample(random: @random),
                    licensed: @random.rand < 0.5, aquatic_label: false,
                    water_m: plant.aquatic? ? 0.0 : [4.0, 60.0, 200.0].sample(random: @random),
                    slope: %w[flat flat steep].sample(random: @random), natives_near: @random.rand < 0.5, cover: 15.0,
                    stems: 20, area_m2: 40.0)
        end
      end
    end
  end
end
