# frozen_string_literal: true

module Thistle
  module Core
    module Work
      # A day in the water: from the boat with a rake, with mask and snorkel, or diving; which hours see best; how long
      # anyone stays in. All of it planning values (memory); whoever leads the dive decides.
      class WaterDay
        SEEN_M = 0.6 # a disc is seen so deep: less, and hands find nothing
        SHALLOW_M, DEEPEST_M = 1.8, 6.0 # to which a snorkel will do; past which this is no volunteers' work
        CALM_KM_H, HIGH_SUN, CLOUD = 12.0, 35.0, 60 # wind; degrees of the sun; percent of cloud that dims it
        # °C of the water: below each, what is said; the coldest first.
        COLD = [[10.0, :no, "Below 10 °C nobody goes in: from the boat only."],
                [15.0, :ask, "Wetsuit with hood and gloves, half an hour at most, someone watching."],
                [20.0, :go, "Wetsuit, an hour at most before warming up."]].freeze

        # depth_m, clarity_m (how deep a disc is seen) and water_c where measured; wind_km_h, cloud (percent). Raises
        # BadInput (by field).
        def initialize(depth_m:, clarity_m:, wind_km_h: nil, cloud: nil, water_c: nil)
          { depth: depth_m, clarity: clarity_m }.each do |field, value|
            raise BadInput.new("is above 0 and at most 60 m", field:) unless value&.between?(0.01, 60)
          end
          @depth, @clarity, @wind, @cloud, @water = depth_m, clarity_m, wind_km_h, cloud, water_c
        end

        # :rake, :snorkel, :dive or :stay_out.
        def way
          return :rake if cold&.first == :no || @clarity < SEEN_M
          return :stay_out if @depth > DEEPEST_M

          @depth <= SHALLOW_M ? :snorkel : :dive
        end

        # Is there anything to settle before anyone goes in: cold, wind, cloud, or a temperature that nobody measured?
        def ask? = because.size > 1

        # Why, and what else it asks for: [sentence].
        def because
          found = ["A disc is seen {length:#{@clarity}} deep, the bottom lies at {length:#{@depth}}."]
          found << "Too murky to tell one plant from another: rake from the boat, and look at what comes up." if murky?
          found << "Deeper than volunteers go: a dive team, under its own rules." if @depth > DEEPEST_M
          found << "Wind ruffles it: wait for a calm hour, or work in the lee." if @wind && @wind > CALM_KM_H
          found << "Under cloud little is seen below a metre: look from above at noon, or wait." if @cloud.to_i > CLOUD
          found << cold.last if cold
          found << "The water's temperature is not known: measure it before anyone goes in." if @water.nil?
          found
        end

        # Hours of a day in which the sun stands high enough and the wind is low: [at], of [Season::Hours::Now]; sun:
        # degrees at each.
        def self.best_hours(hours, sun)
          hours.select { |now| sun.call(now.at) >= HIGH_SUN && !now.wind.nil? && now.wind <= CALM_KM_H }.map(&:at)
        end

        private

        def murky? = @clarity < SEEN_M
        def cold = @cold ||= @water && COLD.find { |below, _, _| @water < below }&.drop(1)
      end
    end
  end
end
