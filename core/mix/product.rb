# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # A product as its label describes it: one or two actives, what it may be used for and how strong, what it asks of
      # the day. What nobody typed is nil: a question, never a default.
      class Product
        # One use that the label has: percent of product by volume in the mix, and mL (g of a dry one) of product on a
        # hectare; from, to.
        # carrier: what the label carries it in there; nil where nobody typed that.
        Use = Value.define(:kind, :low, :high, :rate_low, :rate_high, :carrier) do
          def within?(percent) = between?(percent, low, high)
          def rate_within?(ml_per_ha) = between?(ml_per_ha, rate_low, rate_high)
          def rated? = !(rate_low || rate_high).nil?

          private

          def between?(number, low, high)
            (low.nil? || number >= low * (1 - 1e-9)) && (high.nil? || number <= high * (1 + 1e-9))
          end
        end

        USES = { "foliar" => "leaves", "cut_stump" => "cut stumps", "basal" => "bark",
                 "hack" => "cuts in the trunk" }.freeze
        SIGNALS = %w[caution warning danger].freeze
        CARRIERS = ["water", "bark oil", "as sold"].freeze
        DENSITIES = [0.7, 1.8].freeze # kg on a litre that a product may have, where nobody says how it is made up
        AGREE = 0.03 # densities that two actives give may differ by this share, as labels round

        FIELDS = %i[name form density registration signal_word ready_to_use aquatic rainfast_h reentry_h plant_back_days
                    mixed_keeps_h wind_low wind_high gust temperature_low temperature_high protection first_aid
                    spill call expires_on kept_at].freeze

        attr_reader :id, :ingredients, :uses, :source, *FIELDS

        # ingredients: [Ingredient], uses: [Use]; the rest as FIELDS names it, SI and mL. source: "label" as typed from
        # one, or the standing of a planning value.
        def initialize(ingredients:, uses: [], id: nil, source: "label", **fields)
          @id, @source = id, source
          FIELDS.each { |name| instance_variable_set(:"@#{name}", fields[name]) }
          known = @density || ingredients.filter_map(&:density).first
          @ingredients = ingredients.map { |one| one.at_density(known) }.freeze
          @density, @told_density, @uses = known, @density, uses.freeze
          freeze
        end

        # An active as it is usually sold, where no label was typed: planning values. Of another strength than usual its
        # grams on a litre are not known.
        def self.planned(active, percent = active.stock)
          grams = active.grams if percent == active.stock && active.form != "granule"
          new(name: active.name, form: active.form, ready_to_use: active.form == "ready",
              ingredients: [Ingredient.new(active:, percent: percent.to_f, grams_per_litre: grams)],
              aquatic: active.aquatic == true, rainfast_h: active.rainfast_h, source: active.source)
        end

        # The same planning values of another strength, percent by weight.
        def with_percent(percent) = Product.planned(main.active, percent)

        def labelled? = source == "label"
        # Is it known what is in it? Labels that were kept for their weather alone do not say.
        def mixable? = ingredients.any?
        def main = ingredients.first
        # Is it weighed, not measured?
        def dry? = made&.fetch("dry") || false
        # Grams of an active on a litre of it, on a kg of a dry one; nil where the label does not tell.
        def loading(one) = dry? ? one.percent&.*(10) : one.grams_per_litre
        # Grams of acid on the same.
        def acid_loading(one) = loading(one)&.*(one.active.acid_share)
        def on(kind) = Belongs.new(self, kind)
        # All that its uses are carried in.
        def carriers = (labelled? ? uses.map(&:kind) : main.active.uses.keys).map { |kind| on(kind).carrier }.uniq
        def use(kind) = uses.find { |use| use.kind == kind.to_s }

        # [hours for which a mix of it is good, whose word that is]: its label's, else a planning value; nil where
        # nobody says.
        def keeps
          return [mixed_keeps_h, source] if mixed_keeps_h

          planned = main&.active
          planned&.keeps_h && [planned.keeps_h, planned.source]
        end

        # What its label would have to say besides; nil where nothing is missing.
        def asks_for
          return "No active ingredient was entered. Enter it to mix this product." unless mixable?
          return if density || dry?

          missing = main.percent ? "active in g/L (or lb/gal)" : "percent of active by weight"
          "Type the #{missing}, or the density, from the label: without it a volume of product has no mass."
        end

        # Percent of product in the mix for a method: the least that the label has, else a planning value.
        def usual_percent(removal)
          label = use(removal.use)
          label&.low || label&.high || planned_percent(removal.use)
        end

        def expired?(today) = !expires_on.nil? && expires_on < today

        # Is a mix of so many percent of product within what the label has for this use? Words against it, else nil.
        def against(kind, percent)
          return unless labelled?

          allowed = use(kind)
          return "Its label has no use on #{USES.fetch(kind.to_s)} here." unless allowed
          return if allowed.within?(percent)

          "#{Product.short(percent)} % of product is outside the label's #{Product.span(allowed)} for " \
            "#{USES.fetch(kind.to_s)}."
        end

        # The same for so many mL of product on a hectare, g of a dry one; a rate stands in the words as {spread:1500}.
        def against_rate(kind, ml_per_ha)
          allowed = labelled? ? use(kind) : nil
          return if allowed.nil? || allowed.rate_within?(ml_per_ha)

          unit = dry? ? "spread_dry" : "spread"
          ends = [allowed.rate_low, allowed.rate_high].map { |one| one ? "{#{unit}:#{one.round(1)}}" : "any" }
          "{#{unit}:#{ml_per_ha.round(1)}} of product is outside the label's #{ends.uniq.join(" to ")} for " \
            "#{USES.fetch(kind.to_s)}."
        end

        # {field => words}: what cannot all be so.
        def complaints
          { actives: ("Two actives are two different ones." if ingredients.map(&:key).uniq.size < ingredients.size),
            percent: ("make more than 100 % together" if ingredients.sum { |one| one.percent || 0 } > 100),
            **Densities.new(self).complaints }.compact
        end

        # How it is made up (knowledge/formulations.yml); nil where nobody says.
        def made = Knowledge.shipped.formulations[form]
        # kg on a litre as it was typed, beside what its actives give.
        attr_reader :told_density

        def self.short(number) = number.round(3).to_s.delete_suffix(".0")

        # "20 % to 50 %", "20 %", "any to 50 %"
        def self.span(use)
          [use.low, use.high].uniq.map { |percent| percent ? "#{short(percent)} %" : "any" }.join(" to ")
        end

        private

        # Percent of the mix that is product at the planning value of a use; of the mildest use where it has none there.
        def planned_percent(use)
          active = main.active
          target = (active.use(use) || active.uses.values.min_by { |one| one["target"] })["target"]
          [100.0 * target / (main.percent || active.stock), 100.0].min
        end
      end
    end
  end
end
