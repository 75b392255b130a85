# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # One day of weather. °C, mm, km/h, %; standing: :measured, :forecast or :usual.
      # A feed (a real one, or the simulated station) answers `daily(from..to)` with an array of these,
      # `hourly(date)` with 24 Hours, and `since` with its first date.
      Day = Value.define(:date, :tmin, :tmax, :rain, :wind, :humidity, :standing) do
        def tmean = (tmin + tmax) / 2.0
      end

      # One hour of weather: `at` is the local hour 0..23.
      Hour = Value.define(:at, :temperature, :rain, :wind, :humidity)
    end
  end
end
