# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # What a year is made of at a place where nobody measured: of the places around it whose weather is well known
      # (knowledge/normals.yml), the nearer the more, those by the sea for a place by the sea, put to its height.
      class Normals
        REACH_KM = 500.0 # past this no place stands for another (memory, as all here)
        NEAREST = 4
        LAPSE = 0.006    # °C colder for each metre higher
        HEIGHT_KM = 0.12 # a metre of height between two places parts them as much as this many km
        SEA_KM = 90.0    # the sea at one of two places and not at the other parts them as much
        SMOOTH_KM = 15.0
        RAIN_SHARE = 0.8 # of days, at most

        Place = Value.define(:name, :latitude, :longitude, :height, :sea, :row)

        def self.shipped = @shipped ||= new(Knowledge.shipped.normals)

        # rows: as normals.yml has them.
        def initialize(rows)
          @places = rows.map do |name, row|
            latitude, longitude = row["at"]
            Place.new(name:, latitude:, longitude:, height: row["height"], sea: row.fetch("sea", false), row:)
          end
        end

        # Weather as StandIns::WeatherStation takes it, in °C, km/h and mm; nil where no place is near enough.
        # height: m, nil where it is not known: then that of the places around; sea: is it in sight? nil for not known.
        def at(latitude, longitude, height: nil, sea: nil)
          near = nearest(latitude, longitude, height, sea) or return
          weights = near.map { |_, apart| 1 / ((apart + SMOOTH_KM)**2) }
          mix = ->(&value) { near.zip(weights).sum { |(place, _), weight| value[place] * weight } / weights.sum }
          made(mix, height, latitude)
        end

        private

        def nearest(latitude, longitude, height, sea)
          far = @places.map { |place| [place, km(place, latitude, longitude)] }
                       .select { |_, away| away <= REACH_KM }
          far = far.map { |place, away| [place, away + parted(place, height, sea)] }
          far.min_by(NEAREST, &:last) unless far.empty?
        end

        def parted(place, height, sea)
          (height ? (height - place.height).abs * HEIGHT_KM : 0.0) + ([nil, place.sea].include?(sea) ? 0.0 : SEA_KM)
        end

        def made(mix, height, latitude)
          higher = height ? height - mix.call(&:height) : 0.0
          cold, warm, range, wind, wet = %w[cold warm range wind wet].map { |key| mix.call { |place| place.row[key] } }
          rain = Array.new(12) { |month| mix.call { |place| place.row["rain"][month] }.round(1) }
          { "mean" => (((cold + warm) / 2) - (higher * LAPSE)).round(1), "swing" => ((warm - cold) / 2).round(1),
            "range" => range.round(1), "wind" => wind.round(1), "rain" => rain,
            "wet_days" => rain.map { |mm| (mm / wet / 30.4).clamp(0.005, RAIN_SHARE).round(3) },
            "south" => latitude.negative? }
        end

        def km(place, latitude, longitude)
          north = (place.latitude - latitude) * 111.2
          east = (((place.longitude - longitude + 540) % 360) - 180) * 111.2 * Math.cos(latitude * Math::PI / 180)
          Math.hypot(north, east)
        end
      end
    end
  end
end
