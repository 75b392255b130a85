# frozen_string_literal: true

module Thistle
  module StandIns
    # Grounds that stand for a region or a climate: its broad values where its middle lies, with no weather of this
    # year. Tables over the whole library are printed and tested on them.
    module Grounds
      # A place of each kind of year, {climate => region whose broad values it has, nil for the climate's own}.
      CLIMATES = { "frost" => "na_midwest", "winter_wet" => "na_west", "desert" => "na_desert", "mild" => nil,
                   "wet_dry" => nil }.freeze
      SOUTHERN = %w[wet_dry].freeze # whose crews, in this library, work south of the equator

      module_function

      # A Core::Season::Site of a region or of a climate ("frost" is the Midwest's); lake: with open water.
      def of(key, today:, lake: true)
        region, climate = CLIMATES.key?(key) ? [CLIMATES[key], (key unless CLIMATES[key])] : [key, nil]
        latitude, longitude = Core::Season::BroadWeather.middle(region:, climate:)
        latitude = -latitude if SOUTHERN.include?(key)
        place(Core::Season::BroadWeather.climate(latitude, region:, climate:), latitude:, longitude:, today:, lake:)
      end

      # The same of weather that is told as WeatherStation takes it.
      def place(weather, latitude:, today:, longitude: 0.0, lake: true)
        feed = WeatherStation.new(seed: 7, climate: weather, standing: :regional)
        Core::Season::Site.new(feed:, latitude:, longitude:, texture: "loam", today:, lake:)
      end
    end
  end
end
