# frozen_string_literal: true

module Thistle
  module Core
    module Work
      # Person-hours of a method on a patch on a day: what planning values, or the group's own pace, say
      # (Decide::Effort), times what the ground and the day add (knowledge/crew.yml, slow).
      class Hours
        DENSE = 50 # percent of cover

        # felt: heat index of the day, °C, nil where not known; day_hours: how long everybody works; cut_before: was it
        # cut without a treatment?
        def initialize(removal, facts, soil: nil, felt: nil, day_hours: nil, cut_before: false,
                       slow: Knowledge.shipped.crew["slow"])
          @removal, @facts, @felt, @day_hours, @cut_before, @slow = removal, facts, felt, day_hours, cut_before, slow
          @effort = Decide::Effort.new(removal, facts, soil:)
        end

        # {low, likely, high}, or nil where the amount is not known.
        def range = @effort.hours_range&.transform_values { |hours| hours * times }
        def likely = range&.fetch("likely")

        # What makes it take longer: [[words, times]].
        def because
          [("sloping ground" if @facts.slope == "slope")&.then { |words| [words, @slow["slope"]] },
           ("steep ground" if @facts.slope == "steep")&.then { |words| [words, @slow["steep"]] },
           (["a dense stand", @slow[thorny? ? "dense_thorns" : "dense"]] if @facts.cover.to_f > DENSE),
           (["cut before, and grown back", @slow["cut_before"]] if @cut_before),
           (["heat", heat] if heat),
           (["a long day", tired] if tired > 1)].compact
        end

        # Does the group's own pace speak?
        def own? = !@effort.pace.nil?

        private

        HEAT = %w[hot hotter dangerous dangerous].freeze # by the steps of Exposure::HEAT
        private_constant :HEAT

        def heat
          step = @felt && Exposure::HEAT.keys.rindex { |from| @felt >= from }
          step && @slow[HEAT[step]]
        end

        def thorny? = @facts.plant.is?(:thorny) || @facts.plant.hazards.include?("thorns")
        def times = because.map(&:last).reduce(1.0, :*)

        # On average over a day that is longer than people last.
        def tired
          over = @day_hours.to_f - @slow["day_hours"]
          over.positive? ? 1 + (@slow["an_hour"] * over * over / (2 * @day_hours)) : 1.0
        end
      end
    end
  end
end
