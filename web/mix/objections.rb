# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      # What stands against a mix: what the labels say, and what the rules say against herbicide on this patch.
      class Objections
        def initialize(desk, today)
          @desk, @units, @today = desk, desk.units, today
        end

        # [[text, source]]
        def all = label_says + rules_say

        private

        def products = [@desk.product, @desk.second].compact

        def label_says
          found = (@desk.answer ? @desk.answer.doses : []).flat_map { |dose| strength(dose) }
          products.each do |one|
            found << "#{one.name} expired on #{Words.full_day(one.expires_on)}." if one.expired?(@today)
            found << "#{one.name} is ready to use: nothing is mixed into it." if one.ready_to_use && thinned?
          end
          found += (@desk.limits&.over || []).map { |limit| UsageWords.over(limit, @units) }
          found.compact.map { |text| [text, "label"] }
        end

        # Is anything else in the vessel?
        def thinned? = @desk.answer.nil? || @desk.answer.parts.size > 1

        # The label's percent is of volume: what is weighed has none.
        def strength(dose)
          percent = dose.strength.product_percent
          [(dose.product.against(@desk.use, percent) if percent), on_ground(dose)]
        end

        # What a tank would put of a product on a hectare.
        def on_ground(dose)
          return unless @desk.vessel == "tank"

          ml = @desk.amount.ml_a_hundred * dose.strength.share * 100
          dose.product.against_rate(@desk.use, ml)&.then { |text| @units.fill(text) }
        end

        def rules_say
          patch = @desk.patch
          return [] unless patch&.plant

          bench = Core::Decide::Bench.new(patch.facts(@today), patch.property.site(@today))
          found = bench.verdict(@desk.removal).reasons.select(&:against?).map { |r| [r.said(@units), r.source] }
          wet = bench.situation.near_water? && !products.all?(&:aquatic)
          found << ["Water is in reach, and this product's label does not allow aquatic use.", "common_practice"] if wet
          found
        end
      end
    end
  end
end
