# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # One hour of weather: `at` is the hour on the clock there, 0..23. °C, mm, km/h, %.
      Hour = Value.define(:at, :temperature, :rain, :wind, :humidity, :gust, :standing)
    end
  end
end
