# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # Which actives suit a plant where a method puts them, and which never do: planning values, behind the label.
      class Choice
        # verdict: :known (named for this plant), :ask (it acts on its kind; on this plant nobody here knows), :weak (it
        # only holds it), :never; why: words for the last two.
        Answer = Value.define(:active, :verdict, :why)
        VERDICTS = %i[known ask weak never].freeze
        STANDING = { "grass" => "grasses", "lily_kin" => "rushes, lilies and their kin", "broadleaf" => "it" }.freeze
        LILY_KIN = %w[Cyperaceae Butomaceae Asparagaceae Pontederiaceae Araceae Potamogetonaceae Hydrocharitaceae
                      Juncaceae Liliaceae Iridaceae Typhaceae].freeze

        # plant: a Core::Plant; use: a key of Product::USES; wet: is water in reach of it?
        def initialize(plant, use, actives: Knowledge.shipped.actives.values, wet: false)
          @plant, @use, @actives, @wet = plant, use.to_s, actives, wet || plant.aquatic?
        end

        # [Answer], what is known for it in front; among alike in the order of the library.
        def weighed
          @weighed ||= @actives.map { |active| answer(active) }
                               .sort_by.with_index { |one, n| [VERDICTS.index(one.verdict), n] }
        end

        # {verdict => [Answer]}
        def by_verdict = weighed.group_by(&:verdict)

        private

        def answer(active)
          why = never(active)
          return Answer.new(active:, verdict: :never, why:) if why
          if (active.weak || []).include?(@plant.key)
            return Answer.new(active:, verdict: :weak,
                              why: "it only holds it")
          end

          Answer.new(active:, verdict: known?(active) ? :known : :ask)
        end

        def known?(active) = (active.suits[@use] || []).include?(@plant.key)

        # In words; nil where it may be used.
        def never(active)
          return "it is not used on #{Product::USES.fetch(@use)}" unless active.use(@use)
          return "its usual labels are not for water" if @wet && !active.aquatic
          return if known?(active)
          return spared(active) unless active.kills.include?(kind)
          return "it acts on other families" if active.only && !active.only.include?(@plant.family)

          "it is for woody plants" if active.woody && !@plant.woody?
        end

        def spared(active)
          active.kills == ["grass"] ? "it kills grasses alone" : "it leaves #{STANDING[kind]} standing"
        end

        def kind
          return "grass" if @plant.family == "Poaceae"

          LILY_KIN.include?(@plant.family) ? "lily_kin" : "broadleaf"
        end
      end
    end
  end
end
