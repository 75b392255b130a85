# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # The year strip at the top of every page: a bar of rain and a shade of soil for each day, the anchors,
      # today. Past days are measured, the next ten forecast, the rest what is usual here.
      class Band
        Mark = Value.define(:date, :rain, :fill, :soil, :standing)

        attr_reader :site

        def initialize(site)
          @site = site
        end

        def year = site.year
        def start = year.start
        def finish = year.finish
        def today = site.today
        def anchors = year.anchors.select { |anchor| shown.include?(anchor.key) }

        def marks
          @marks ||= (start..finish).map do |date|
            ground = site.ground(date)
            day = site.day(date)
            Mark.new(date:, rain: day.rain, fill: ground.fill, soil: ground.kind, standing: day.standing)
          end
        end

        # What the head line says about today.
        def now
          ground = site.ground(today)
          day = site.day(today)
          rain = site.measured((today - 30)..today).reverse.find { |d| d.rain >= 2 }
          wet = ((today + 1)..site.horizon).find { |date| site.day(date).rain >= 1 }
          { soil: ground.kind, last_rain: rain, wind: day.wind, temperature: day.tmax, next_rain: wet }
        end

        # As plain data, for JSON.
        def to_h
          { start:, finish:, today:, soil: site.ground(today).kind,
            anchors: year.anchors.map { |a| { key: a.key, date: a.date, early: a.early, late: a.late, measured: a.measured } },
            days: marks.map { |m| { date: m.date, rain_mm: m.rain.round(1), soil: m.soil, standing: m.standing } } }
        end

        private

        def shown = %i[last_frost leaf_out full_leaf first_frost third_frost]
      end
    end
  end
end
