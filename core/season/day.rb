# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # One day of weather. °C, mm, km/h, %, MJ/m²; what a station does not measure is nil.
      # standing: :measured; :forecast; :regional, broad values for where no station was; :usual, the mean of other
      # years. A feed (a simulated station, or a property's own) answers `daily(from..to)` with an array of these, dates
      # without a record left out, `hourly(date)` with Hours, and `station`, a Station or nil where it stands on this
      # ground.
      Day = Value.define(:date, :tmin, :tmax, :rain, :wind, :humidity, :gust, :radiation, :standing) do
        def tmean = (tmin + tmax) / 2.0
      end
    end
  end
end
