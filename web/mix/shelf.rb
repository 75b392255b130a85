# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      # The products of the group with what is left of each, what is wrong with it today, and what it is used for here.
      class Shelf
        # warnings: words; in_use: kinds of work on the property at hand.
        Row = Core::Value.define(:product, :label, :on_hand_ml, :warnings, :in_use)

        LITTLE_ML = 250.0 # less is said to be nearly gone
        SOON = 60 # days before it expires

        def initialize(property, today)
          @property, @today = property, today
          @used, @in_use = Store::Product.used, Store::InUse.products(property.id)
          @needed = Store::PlanNeeds.call(Store::Property.order(:id).all, today)
        end

        def rows = @rows ||= Store::Product.live.here.named.all.map { |product| row(product) }

        def row(product)
          label, left = product.label, product.on_hand_ml(@used)
          Row.new(product:, label:, on_hand_ml: left, warnings: warnings(label, left),
                  in_use: @in_use.select { |_, one| one.id == product.id }.keys)
        end

        private

        def warnings(label, left)
          found = [label.asks_for, expiry(label), short(label, left)]
          found << "Nothing is left." if left && left <= 0
          found << "Little is left." if left&.between?(0.01, LITTLE_ML)
          found << "No use was entered from its label. No mix can be checked against it." if label.uses.empty?
          found.compact
        end

        # Where the season plans want more than there is.
        def short(label, left)
          needed = @needed.fetch(label.id, 0)
          return unless left && needed > left

          units = @property.measures
          "The season plans want #{units.volume(needed)}: #{units.volume(needed - [left, 0].max)} more than there is."
        end

        def expiry(label)
          return "It expired on #{Words.full_day(label.expires_on)}: it is not to be used." if label.expired?(@today)

          "It expires on #{Words.full_day(label.expires_on)}." if label.expires_on && label.expires_on <= @today + SOON
        end
      end
    end
  end
end
