# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # What a mix comes to on its ground: plants to order and seed to weigh out.
      class Amounts
        # native; share of the ground; count of plants, or live and bulk grams of seed by `lot`; cost or nil; working.
        Row = Value.define(:native, :share, :count, :pls_g, :bulk_g, :seeds_m2, :lot, :cost, :working) do
          # g of seed that are not on the shelf.
          def short_g = bulk_g ? [bulk_g - (lot.grams || 0.0), 0.0].max : 0.0
        end
        CARRIER = 0.35 # L of damp sand on a square metre, so that little seed is spread evenly (memory)

        # items: [PlantMix::Item]; spacing_m: of all plants, or nil for each one's own; lots: {native key => SeedLot};
        # prices: {stock => money apiece}; rate: SeedRate. Raises BadInput (field :area, :spacing or :rate).
        def initialize(items, m2:, kind:, grid: "triangular", spacing_m: nil, lots: {}, prices: {}, rate: SeedRate.new)
          raise BadInput.new("The area is above 0.", field: :area) unless m2.positive?
          if spacing_m && (!spacing_m.positive? || spacing_m > Math.sqrt(m2))
            raise BadInput.new("The spacing is above 0, and not wider than the bed.", field: :spacing)
          end

          @items, @m2, @kind, @grid, @spacing, @lots, @prices = items, m2, kind, grid, spacing_m, lots, prices
          @rate = rate
        end

        # [Row]
        def rows = @rows ||= @items.map { |item| @kind == "seed" ? sown(item) : planted(item) }.freeze

        def count = rows.sum { |row| row.count || 0 }
        def bulk_g = rows.sum { |row| row.bulk_g || 0 }
        def seeds_m2 = rows.sum { |row| row.seeds_m2 || 0 }
        # g of pure live seed on a square metre.
        def live_g_m2 = rows.sum { |row| row.pls_g || 0 } / @m2
        # The same in every unit: {unit of SeedRate => number}.
        def rate_said = SeedRate.said(seeds_m2, live_g_m2)
        # Is that thinner or thicker than such a sowing wants? :thin, :thick or nil.
        def thickness = @rate.word(seeds_m2)
        def carrier_l = @kind == "seed" ? CARRIER * @m2 : 0.0

        private

        def planted(item)
          native = item.native
          spacing = @spacing || (native.spacing_cm / 100.0)
          answer = PlantingRate.plugs(area_m2: @m2 * item.share, spacing_m: spacing, grid: @grid)
          price = @prices[Stock.of(native)]
          Row.new(native:, share: item.share, count: answer.plugs, cost: price && (price * answer.plugs),
                  working: answer.working)
        end

        def factor = @factor ||= @rate.factor(@items)

        # Seeds fall by the share of the ground and by how thick a kind is sown alone, as many times as the mix wants.
        def sown(item)
          native = item.native
          lot = @lots[native.key] || SeedLot.new
          rate = native.seeds_per_m2 * item.share * factor
          answer = PlantingRate.seed(area_m2: @m2, seeds_per_m2: rate, seeds_per_g: native.seeds_per_g,
                                     purity: lot.purity_used, germination: lot.germination_used)
          Row.new(native:, share: item.share, pls_g: answer.pls_g, bulk_g: answer.bulk_g, seeds_m2: rate, lot:,
                  cost: lot.cost_g && (lot.cost_g * answer.bulk_g), working: [rate_step(item, rate), *answer.working])
        end

        def rate_step(item, rate)
          share = "#{(item.share * 100).round(1)} % × #{factor.round(2)}"
          Step.new(label: "Live seeds sown", value: rate.round(1), unit: :dense, source: @rate.source,
                   formula: "{dense:#{item.native.seeds_per_m2}} alone × #{share}")
        end
      end
    end
  end
end
