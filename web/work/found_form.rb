# frozen_string_literal: true

module Thistle
  module Web
    module Work
      # One more of the same plant, where a phone stands: a patch as Survey takes it, its name not settled.
      module FoundForm
        RADIUS_M = 2.0

        module_function

        # The Survey::Forms::Patch of a position.
        def of(params, like, units, today)
          lon, lat = %w[lon lat].map { |name| Core::Decimal.read(params[name].to_s, comma: :decimal) }
          geometry = lon && lat ? JSON.generate(type: "Point", coordinates: [lon, lat]) : ""
          Survey::Forms::Patch.new({ "geometry" => geometry, "plant_key" => like.plant_key,
                                     "seen_on" => today.iso8601, "note" => "Found beside #{like.code}.",
                                     "radius" => units.from_si(:length, RADIUS_M).round(2).to_s }, units:, today:)
        end
      end
    end
  end
end
