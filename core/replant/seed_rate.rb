# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # How thick a mix is sown: live seeds on a square metre in all, or a weight of pure live seed; what each kind has
      # of it follows from its share of the ground and from how thick it is sown alone.
      class SeedRate
        FOOT2 = 0.09290304
        # Live seeds on a square metre, from, usual, to: 40, 50 and 60 on a square foot broadcast, half of it drilled
        # (NRCS practice, recalled).
        WAYS = { "broadcast" => [40, 50, 60], "drilled" => [20, 25, 30] }
               .transform_values { |some| some.map { |number| number / FOOT2 } }.freeze
        LABELS = { "broadcast" => "broadcast", "drilled" => "drilled" }.freeze
        # What a rate of one's own may be counted in: [of what, times so much is one of it on a m²].
        UNITS = { "seeds_m2" => [:seeds, 1.0, "live seeds/m²"], "seeds_ft2" => [:seeds, 1 / FOOT2, "live seeds/ft²"],
                  "g_m2" => [:grams, 1.0, "g live seed/m²"], "kg_ha" => [:grams, 0.1, "kg live seed/ha"],
                  "lb_ac" => [:grams, 453.59237 / 4046.8564224, "lb live seed/ac"] }.freeze
        MOST = 10_000.0 # live seeds on a square metre; more is a slip of the pen

        attr_reader :way

        # number: in a unit of UNITS, nil for what the way usually takes. Raises BadInput (field :rate).
        def initialize(way: "broadcast", number: nil, unit: "seeds_m2")
          @way = WAYS.key?(way) ? way : "broadcast"
          @number, (@of, @times, @label) = number, UNITS.fetch(unit) { refuse "is in no unit known here" }
          refuse "is above 0" if number && !number.positive?
          freeze
        end

        # Was it typed?
        def own? = !@number.nil?
        def source = own? ? "own_records" : "nrcs_seeding"

        # Times which a kind's rate alone is sown, for items (native, share) to come to this rate together. Raises
        # BadInput (field :rate) for what no ground takes.
        def factor(items)
          seeds = items.sum { |item| item.share * item.native.seeds_per_m2 }
          return usual / seeds unless own?

          all = @of == :seeds ? seeds : items.sum { |item| item.share * grams_alone(item.native) }
          (@number * @times / all).tap { |times| refuse "is more than any ground takes" if times * seeds > MOST }
        end

        # {unit => number} of so many live seeds and grams of them on a m².
        def self.said(seeds_m2, grams_m2)
          UNITS.transform_values { |of, times, _| (of == :seeds ? seeds_m2 : grams_m2) / times }
        end

        # :thin, :thick, or nil, of live seeds on a square metre.
        def word(seeds_m2)
          low, _, high = WAYS.fetch(@way)
          return :thin if seeds_m2 < low * 0.98

          :thick if seeds_m2 > high * 1.5
        end

        private

        def usual = WAYS.fetch(@way)[1]
        def grams_alone(native) = native.seeds_per_m2 / native.seeds_per_g.to_f
        def refuse(message) = raise(BadInput.new(message, field: :rate))
      end
    end
  end
end
