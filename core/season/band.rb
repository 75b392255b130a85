# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # The year strip at the top of every page: a bar of rain and a shade of soil for each day, the anchors,
      # today. Past days are measured, the next ten forecast, the rest what is usual here.
      class Band
        Mark = Value.define(:date, :rain, :fill, :soil, :standing)

        TOLD = %i[key date early late low high measured].freeze # of an anchor

        attr_reader :site

        def initialize(site)
          @site = site
        end

        def year = site.year
        def start = year.start
        def finish = year.finish
        def today = site.today
        def anchors = year.anchors.select { |anchor| site.climate.shown.include?(anchor.key.to_s) }

        # [Mark], one a day of the season-year: rain, mm; fill of the soil, 1 at field capacity; its standing.
        def marks
          @marks ||= (start..finish).map do |date|
            ground = site.ground(date)
            day = site.day(date)
            Mark.new(date:, rain: day.rain || 0.0, fill: ground.fill, soil: ground.kind, standing: day.standing)
          end
        end

        # What the head line says about today.
        def now
          ground = site.ground(today)
          day = site.day(today)
          rain = site.measured((today - 30)..today).reverse.find { |d| d.rain && d.rain >= 2 }
          wet = site.next_rain(today + 1, 1)
          { soil: ground.kind, last_rain: rain, wind: day.wind, temperature: day.tmax, next_rain: wet,
            forecast: site.forecast?,
            standing: day.standing }
        end

        # As plain data, for JSON.
        def to_h
          { start:, finish:, today:, soil: site.ground(today).kind,
            climate: site.climate.key,
            anchors: year.anchors.map { |anchor| anchor.to_h.slice(*TOLD).merge(seen: !anchor.seen.nil?) },
            days: marks.map { |m| { date: m.date, rain_mm: m.rain.round(1), soil: m.soil, standing: m.standing } } }
        end
      end
    end
  end
end
