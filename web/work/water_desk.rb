# frozen_string_literal: true

module Thistle
  module Web
    module Work
      # What the water is like, as typed, and what it says of the day.
      class WaterDesk
        include Mix::Numbers

        WAYS = { rake: "From the boat, with a rake", snorkel: "With mask and snorkel",
                 free_dive: "Free diving, by trained people", dive: "A dive team",
                 stay_out: "Nobody here goes in" }.freeze

        attr_reader :errors, :units

        def initialize(params, units, site, today)
          @params, @units, @site, @today, @errors = params, units, site, today, {}
        end

        def [](field) = @params[field.to_s].is_a?(String) ? @params[field.to_s].strip : ""
        def value(field) = self[field]
        def error(field) = errors[field.to_sym]

        # The Core::Work::WaterDay; nil until depth and clarity are typed.
        def answer
          return @answer if defined?(@answer)

          depth, clarity = %w[depth clarity].map { |field| units.to_si(:length, number_typed(field)) }
          water = units.to_celsius(number_typed("water"))
          @answer = depth && clarity && complaining do
            Core::Work::WaterDay.new(depth_m: depth, clarity_m: clarity, cloud:, water_c: water,
                                     wind_km_h: units.to_si(:wind, number_typed("wind")))
          end
        end

        # Percent of cloud; nil where nobody typed it.
        def cloud = number_typed("cloud")

        # {date => [hours]} that see best, where the forecast reaches.
        def hours
          @site.hours.group_by(&:date).first(5).to_h do |date, hours|
            [date, Core::Work::WaterDay.best_hours(hours, ->(at) { @site.sun_height(date, at) || 0.0 }, cloud:)]
          end
        end
      end
    end
  end
end
