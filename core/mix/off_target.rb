# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # What a method puts on or into the plant, and what falls off-target: shares of it, planning values.
      # In grams of acid where the label's grams are known, else in mL of product.
      OffTarget = Value.define(:removal, :product, :product_ml, :acid_g, :low, :high, :source) do
        # litres of ready mix at a strength. Nil where the method has no shares.
        def self.of(removal, product, litres:, percent:)
          shares = removal.reaches or return
          product_ml = litres * 1000 * percent / 100
          grams = product.ingredients.map(&:acid_per_litre)
          new(removal:, product:, product_ml:, acid_g: grams.all? ? grams.sum * product_ml / 1000 : nil,
              low: shares["low"] / 100.0, high: shares["high"] / 100.0, source: shares["source"])
        end

        # Of what is used: grams of acid, or mL of product where grams are not known.
        def amount = acid_g || product_ml

        # [least, most] of it that reaches the plant, and that falls off-target.
        def on_target = [amount * low, amount * high]
        def off_target = [amount * (1 - high), amount * (1 - low)]
      end
    end
  end
end
