# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # What a native is bought or dug as, what that costs and how it is carried (knowledge/stock.yml).
      module Stock
        # Soonest first: what a plan orders where nobody said otherwise.
        ORDER = { true => %w[stakes bare_root pots plugs], false => %w[plugs tubers divisions pots] }.freeze

        module_function

        # The kind of stock that a native is planted as.
        def of(native) = (ORDER.fetch(native.woody?) & native.stock).first || native.stock.first

        # What one costs where no price was typed: planning values.
        def prices = Knowledge.shipped.stock.transform_values { |row| row["price"] }.compact

        # In how many loads a pickup brings so much: [[stock, count]].
        def pickups(counts)
          counts.sum do |stock, count|
            row = Knowledge.shipped.stock.fetch(stock)
            count / (row["held"] * row["pickup"]).to_f
          end.ceil
        end

        # Trays or bundles that so many of it come in, and how many a person carries at a time.
        def loads(stock, count)
          row = Knowledge.shipped.stock.fetch(stock)
          { held: (count / row["held"].to_f).ceil, carried: row["carried"], in: row["in"] }
        end
      end
    end
  end
end
