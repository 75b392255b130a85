# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # Where a product belongs: on leaves, on stubs, on bark, in cuts. It decides what carries it there, what has to be
      # said, and what is refused with why. The label goes before what its active usually is.
      class Belongs
        # How actives in water fail where they are carried to in vain.
        WHY = { "basal" => "water does not carry it through bark",
                "hack" => "it is not usual in cuts",
                "cut_stump" => "it is not usual on stubs",
                "foliar" => "oil burns every leaf that it touches" }.freeze

        def initialize(product, use)
          @product, @use = product, use.to_s
          @label = product.labelled? ? product.use(@use) : nil
        end

        # "water", "bark oil", or "as sold" for what nothing is mixed into.
        def carrier
          return "as sold" if @product.ready_to_use

          @label&.carrier || planned&.fetch("carrier") || fallback
        end

        # Words against it; nil where it belongs.
        def refusal
          return unless @product.mixable?
          return if @label&.carrier

          "#{@product.name} does not belong on #{Product::USES.fetch(@use)}: #{why}#{instead}" unless planned
        end

        # Sentences that go with it, [[words, source]].
        def notes
          actives = @product.ingredients.map(&:active)
          found = actives.filter_map { |one| [one.hard_water, one.source] if one.hard_water && carrier == "water" }
          found + actives.flat_map { |one| (one.hazards || []).map { |words| [words, one.source] } }
        end

        private

        # The use of every active in it; nil where one of them does not belong there.
        def planned
          uses = @product.ingredients.map { |one| one.active.use(@use) }
          uses.first if uses.any? && uses.all?
        end

        def fallback = @product.main.active.uses.values.first["carrier"]

        def why
          odd = @product.ingredients.map(&:active).find { |one| one.use(@use).nil? }
          return "it is for leaves alone" if odd.uses.keys == ["foliar"]

          WHY.fetch(@use)
        end

        def instead
          known = @product.main.active.uses.keys.map { |kind| Product::USES.fetch(kind) }
          ". It is used on #{known.join(", ").sub(/, ([^,]+)\z/,
                                                  " and \\1")}. Where its label has this use, type the " \
            "use with what carries it."
        end
      end
    end
  end
end
