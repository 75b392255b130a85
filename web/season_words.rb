# frozen_string_literal: true

module Thistle
  module Web
    # How the year is said.
    module SeasonWords
      # What a sighting said, as a sentence.
      def said_sighting(sighting)
        case sighting.kind
        when "anchor" then "#{knowledge.anchors.fetch(sighting.said).label.capitalize} seen on #{day(sighting.seen_on)}."
        when "soil" then "Soil felt #{sighting.said}."
        else "#{knowledge.plant(sighting.plant_key).name} #{sighting.began ? "began to be" : "was"} #{phase_word(sighting.said)} on #{day(sighting.seen_on)}."
        end
      end

      def phase_word(key) = knowledge.phases.fetch(key.to_sym)["label"]

      # Whose weather the year rests on.
      def said_origin(origin)
        from = { "simulated" => "From ten years of the simulated station's weather, this year's days so far and its forecast.",
                 "broad" => "No weather of this ground is known: these are broad values for the region, so take the marks as weeks, not days.",
                 "own" => "From #{count(origin.measured_years, "year")} of this property's own station" \
                          "#{" and #{count(origin.regional_years, "year")} of broad regional values before it" if origin.regional_years.positive?}." }
        moved = origin.station && origin.shift != 0 ? " The station stands elsewhere: spring marks are moved #{origin.shift.abs} days #{origin.shift.positive? ? "later" : "earlier"} by Hopkins' law." : ""
        from.fetch(property.feed) + moved
      end

      # "5:57" or "5:57 am" from hours since midnight.
      def clock_time(hours)
        minutes = (hours * 60).round
        hour, minute = minutes.divmod(60)
        units.us? ? format("%d:%02d %s", ((hour - 1) % 12) + 1, minute, hour % 24 < 12 ? "am" : "pm") : format("%d:%02d", hour, minute)
      end

      # What a task waits for, and whether it came.
      def said_event(task)
        event = task.awaited or return ""
        task.happened_on ? "It came: #{event.said(units)}, #{day(task.happened_on)}." : "Waits for #{event.said(units)}."
      end
    end
  end
end
