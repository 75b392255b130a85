# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # Water that the mix is made with: salts in it tie up weak-acid herbicides, and ammonium sulfate answers them.
      # Nalewaja and Matysiak (1993), recalled: pounds on 100 US gallons from parts per million of each salt.
      module Carrier
        SHARES = { potassium: 0.002, sodium: 0.005, calcium: 0.009, magnesium: 0.014 }.freeze
        CALCIUM_OF_HARDNESS = 40.078 / 100.0869 # mass of calcium in calcium carbonate (molar masses)
        GRAIN = 17.118 # ppm of calcium carbonate in a grain to the US gallon
        HARDEST = 5000.0 # ppm; more is brine
        ON_LABELS = [10.0, 20.0].freeze # g on a litre that labels usually ask for, whatever the water (recalled)

        module_function

        # Grams of ammonium sulfate on a litre. Raises BadInput (field :hardness) for what is no water.
        def ammonium_sulfate(**ppm)
          if ppm.values.any? { |one| one.negative? || one > HARDEST }
            raise BadInput.new("Salts in water are 0 to #{HARDEST.round} parts in a million.", field: :hardness)
          end

          pounds = ppm.sum { |salt, amount| SHARES.fetch(salt) * amount }
          (Quantity.of(pounds, "lb") / Quantity.of(100, "gal")).to("g/L")
        end

        # The same from total hardness, ppm as calcium carbonate, all of it taken as calcium.
        def for_hardness(ppm) = ammonium_sulfate(calcium: ppm * CALCIUM_OF_HARDNESS)
      end
    end
  end
end
