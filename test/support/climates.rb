# frozen_string_literal: true

module Thistle
  # Places of every kind of year, for tests.
  module Climates
    TROPICS = { "mean" => 27.5, "swing" => 2.5, "range" => 9, "wind" => 12, "south" => true,
                "rain" => [430, 370, 320, 100, 20, 2, 1, 5, 15, 70, 140, 250],
                "wet_days" => [0.65, 0.65, 0.6, 0.3, 0.07, 0.02, 0.01, 0.02, 0.07, 0.2, 0.4, 0.5] }.freeze
    COAST = { "mean" => 14.0, "swing" => 5.5, "range" => 11, "wind" => 11,
              "rain" => [120, 105, 85, 40, 12, 3, 1, 1, 5, 30, 75, 110],
              "wet_days" => [0.37, 0.36, 0.33, 0.2, 0.1, 0.04, 0.01, 0.02, 0.05, 0.12, 0.28, 0.35] }.freeze
    DESERT = { "mean" => 21.5, "swing" => 9.5, "range" => 15, "wind" => 11,
               "rain" => [25, 22, 20, 8, 5, 5, 55, 60, 30, 20, 15, 25],
               "wet_days" => [0.12, 0.12, 0.12, 0.06, 0.05, 0.05, 0.3, 0.3, 0.15, 0.1, 0.08, 0.12] }.freeze
    SOUTH = Testing::CLIMATE.merge("south" => true)

    module_function

    def site(name)
      { "north" => -> { Testing.site }, "south" => -> { Testing.site(latitude: -38.0, climate: SOUTH) },
        "tropics" => -> { tropics },
        "coast" => -> { coast }, "desert" => -> { desert } }.fetch(name).call
    end

    def tropics = Testing.site(latitude: -12.5, climate: TROPICS, today: Date.new(2026, 2, 12), seed: 3)
    def coast = Testing.site(latitude: 37.8, climate: COAST, today: Date.new(2026, 2, 12), seed: 3)
    def desert = Testing.site(latitude: 32.2, climate: DESERT, today: Date.new(2026, 8, 1), seed: 3)
  end
end
