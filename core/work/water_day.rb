# frozen_string_literal: true

module Thistle
  module Core
    module Work
      # A day in the water as divers describe it: from the boat with a rake, with mask and snorkel, free diving, with a
      # dive team; which hours see best; what is worn and how long anyone stays in. All of it planning values (memory);
      # whoever leads the dive decides.
      class WaterDay
        SEEN_M = 0.6 # a disc is seen so deep: less, and hands find nothing
        SHALLOW_M, FREE_M, DEEPEST_M = 1.8, 3.5, 6.0 # to stand, to free dive, past which this is no volunteers' work
        CALM_KM_H = 12.0 # wind
        LOW_SUN, NOON, BRIGHT = 10.0, 45.0, 60 # degrees of the sun; percent of cloud that takes its glare away
        # °C of the water: below each, whether, what is said, what is worn; the coldest first.
        COLD = [[5.0, :no, "Below {temperature:5} nobody goes in: from the boat only.", nil],
                [10.0, :ask, "Short dives of people used to the cold, a boat beside them.",
                 "a drysuit, or a thick wetsuit with hood and gloves"],
                [15.0, :ask, "Half an hour at most, someone watching.", "a wetsuit with hood and gloves"],
                [20.0, :go, "An hour at most before warming up.", "a wetsuit"],
                [99.0, :go, nil, "a thin wetsuit against scrapes and sun"]].freeze

        # depth_m, clarity_m (how deep a disc is seen) and water_c where measured; wind_km_h, cloud (percent). Raises
        # BadInput (by field).
        def initialize(depth_m:, clarity_m:, wind_km_h: nil, cloud: nil, water_c: nil)
          { depth: depth_m, clarity: clarity_m }.each do |field, value|
            raise BadInput.new("is above 0 and at most 60 m (197 ft)", field:) unless value&.between?(0.01, 60)
          end
          @depth, @clarity, @wind, @cloud, @water = depth_m, clarity_m, wind_km_h, cloud, water_c
        end

        # :rake, :snorkel, :free_dive, :dive or :stay_out.
        def way
          return :rake if cold&.at(1) == :no || @clarity < SEEN_M
          return :stay_out if @depth > DEEPEST_M
          return :snorkel if @depth <= SHALLOW_M

          @depth <= FREE_M && !cold_water? ? :free_dive : :dive
        end

        # Is there anything to settle before anyone goes in: cold, wind, or a temperature that nobody measured?
        def ask? = @water.nil? || cold_water? || windy? || way == :free_dive

        # What is worn in it; nil where nobody goes in.
        def dress = cold ? cold.at(3) : "what the water's temperature asks for, a suit in any case"

        # Why, and what else it asks for: [sentence].
        def because
          found = ["A disc is seen {length:#{@clarity}} deep, the bottom lies at {length:#{@depth}}."]
          found << "Too murky to tell one plant from another: rake from the boat, and look at what comes up." if murky?
          found << "Deeper than volunteers go: a dive team, under its own rules." if @depth > DEEPEST_M
          found << "Trained free divers reach this depth; one is down, one watches from above." if way == :free_dive
          found << "Wind ruffles it: wait for a calm hour, or work in the lee." if windy?
          found << sight if @cloud
          found << cold.at(2) if cold&.at(2)
          found << "The water's temperature is not known: measure it before anyone goes in." if @water.nil?
          found << "Worn: #{dress}." if dress
          found
        end

        # Hours of a day that see best: calm, and the sun low, or thin cloud before it; never noon glare: [at], of
        # [Season::Hours::Now]. sun: degrees at each; cloud: percent, nil where nobody knows.
        def self.best_hours(hours, sun, cloud: nil)
          hours.select do |now|
            height = sun.call(now.at)
            height >= LOW_SUN && (height <= NOON || cloud.to_i >= BRIGHT) && !now.wind.nil? && now.wind <= CALM_KM_H
          end.map(&:at)
        end

        private

        def murky? = @clarity < SEEN_M
        def windy? = !@wind.nil? && @wind > CALM_KM_H
        def cold = @cold ||= @water && COLD.find { |below, *| @water < below }
        def cold_water? = cold&.at(1) == :ask

        def sight
          return "Bright, even cloud sees best: no glare, and light enough." if @cloud >= BRIGHT

          "Under a clear sky noon glare hides plants: early or late, sun behind you, glasses that cut glare."
        end
      end
    end
  end
end
