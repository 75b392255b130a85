# frozen_string_literal: true

module Thistle
  module Web
    module Season
      # How the year of a property is said.
      class Words
        include Web::Words

        FROM = { "simulated" => "From ten years of the simulated station's weather, this year's days so far and its " \
                                "forecast.",
                 "broad" => "No weather of this ground is known: these are usual values of the places around. Take " \
                            "the marks as weeks, not days." }.freeze

        def initialize(property)
          @property, @units = property, property.measures
        end

        # What a sighting said, as a sentence.
        def said_sighting(sighting)
          case sighting.kind
          when "anchor" then "#{Core::Knowledge.shipped.anchors.fetch(sighting.said).label.capitalize} seen on " \
                             "#{day(sighting.seen_on)}."
          when "soil" then "Soil felt #{sighting.said}."
          else
            verb = sighting.began ? "began to be" : "was"
            plant = Core::Knowledge.shipped.plant(sighting.plant_key).name
            "#{plant} #{verb} #{phase_word(sighting.said)} on #{day(sighting.seen_on)}."
          end
        end

        def phase_word(key) = Core::Knowledge.shipped.phases.fetch(key.to_sym)["label"]

        # Whose weather the year rests on.
        def said_origin(origin)
          from = @property.feed == "own" ? said_own(origin) : FROM.fetch(@property.feed)
          unplaced = "Its place is not known: the middle of the region stands for it." unless @property.placed
          [from, unplaced, said_shift(origin)].compact.join(" ")
        end

        def said_own(origin)
          regional = origin.regional_years
          before = " and #{count(regional, "year")} of broad regional values before it" if regional.positive?
          "From #{count(origin.measured_years, "year")} of this property's own station#{before}."
        end

        def said_shift(origin)
          return if origin.station.nil? || origin.shift.zero?

          way = origin.shift.positive? ? "later" : "earlier"
          "The station stands elsewhere: spring marks are moved #{origin.shift.abs} days #{way} by Hopkins' law."
        end

        # What a task waits for, and whether it came.
        def said_event(task)
          event = task.awaited or return ""
          if task.happened_on
            "It came: #{event.said(@units)}, #{day(task.happened_on)}."
          else
            "Waits for #{event.said(@units)}."
          end
        end
      end
    end
  end
end
