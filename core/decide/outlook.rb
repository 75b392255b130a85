# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # Projects a patch's Choices onto any day at a Site: stage by the plant's calendar, soil by the bucket,
      # weather as far as the forecast sees.
      class Outlook
        SEED = %i[green_seed ripe_seed].freeze

        attr_reader :choices, :site, :calendar

        def initialize(choices, site)
          @choices, @site = choices, site
          @calendar = choices.calendar(site)
          @situations = {}
        end

        def on(date) = @situations[date] ||= situation(date)

        # A day as it usually is: the calendar's stage, the usual soil, no weather of single days.
        def usually(date)
          phases = @calendar.phases_on(date)
          Situation.new(**shared, date:, stage: stage(date, phases), phases:, soil: site.usual_soil(date), season: site.year(date))
        end

        # The stage on a date: pinned, else by the calendar.
        def stage(date, phases = @calendar.phases_on(date))
          return choices.stage if choices.stage && date == choices.date

          furthest = Season::Phenology.furthest(phases)
          choices.bears_seed? || !SEED.include?(furthest) ? furthest : :leaf
        end

        def spans = @calendar.spans(site.year(choices.date))

        private

        def situation(date)
          phases = @calendar.phases_on(date)
          Situation.new(**shared, date:, stage: stage(date, phases), phases:, soil: soil(date), day: weather(date),
                                  next_days: next_days(date), season: site.year(date))
        end

        def shared
          @shared ||= choices.to_h.slice(:plant, :settled, :size, :stance, :licensed, :aquatic_label, :water_m,
                                         :slope, :natives_near, :cover, :freed_on, :new_here, :reported, :zones, :labels)
        end

        # Only weather that was measured or forecast counts.
        def weather(date) = site.known?(date) ? site.day(date) : nil

        def next_days(date)
          [site.day(date), site.day(date + 1)] if site.known?(date) && site.known?(date + 1)
        end

        # A pinned soil is where the bucket starts; from the next day on, rain and sun decide.
        def soil(date)
          return site.ground(date).kind unless choices.soil && date >= choices.date

          pinned_soil(date)
        end

        def pinned_soil(date)
          @pinned ||= { choices.date => choices.soil }
          @bucket ||= Season::Soil.new(texture: site.texture, latitude: site.latitude, elevation: site.elevation,
                                       fill: Season::Soil::MIDDLE.fetch(choices.soil))
          (@pinned.keys.last.next..date).each { |d| @pinned[d] = @bucket.pass(site.day(d)) }
          @pinned[date]
        end
      end
    end
  end
end
