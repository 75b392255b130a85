# frozen_string_literal: true

module Thistle
  module Web
    module Season
      # What the season room answers as plain data for JSON, units in the names. docs/api.md describes each.
      module Answers
        AGO = 29 # days of weather before today

        module_function

        def year(board, band)
          plants = board.cards.to_h { |card| [card.plant.key, card(card, board.year)] }
          band.to_h.merge(climate: board.site.climate.key, weather_from: board.property.feed, plants:)
        end

        def pit(pit) = { told: pit.told, texture: pit.texture, poorly_drained: pit.poorly_drained }

        def card(card, year) = { phases: phases(card.calendar.phenophases(year)), windows: windows(card.windows) }

        def phases(spans)
          spans.map do |span|
            { phase: span.phase, from: span.from, to: span.to, early: span.early, late: span.late,
              done_early: span.done_early, done_late: span.done_late, moved_days: span.moved, source: span.source }
          end
        end

        def windows(windows) = windows.to_h { |removal, spans| [removal.key, spans.map { |one| window(one) }] }

        def window(one)
          { from: one.from, to: one.to, opens: one.opens&.said, closes: one.closes&.said,
            fit_days: one.held&.days, years: one.held&.years }
        end

        # Each hour ahead with what stands against each kind of work.
        def fits(site, property)
          fits = Core::Knowledge.shipped.fits.keys.to_h { |key| [key, site.fit(key, property.label_limits)] }
          hours = site.hours.each_with_index.map do |hour, n|
            hour(hour).merge(against: fits.transform_values { |fit| fit.hours[n].against.map(&:key) })
          end
          { fit: fits.transform_values { |fit| fit.stretches.map { |one| stretch(one) } }, hours: }
        end

        def stretch(one) = { date: one.date, from_hour: one.from, to_hour: one.to }

        def hour(hour)
          { date: hour.date, at: hour.at, temperature_c: hour.temperature, rain_mm: hour.rain, wind_km_h: hour.wind,
            gust_km_h: hour.gust&.round(1), humidity_percent: hour.humidity, delta_t_c: hour.delta_t&.round(1),
            soil: hour.soil }
        end

        def weather(site, property)
          { from: property.feed, climate: site.climate.key, soil_texture: site.texture,
            days: ((site.today - AGO)..site.horizon).map { |date| day(site, date) } }
        end

        def day(site, date)
          day, ground, flow = site.day(date), site.ground(date), site.flow(date)
          { date:, standing: day.standing, tmin_c: day.tmin, tmax_c: day.tmax, rain_mm: day.rain, wind_km_h: day.wind,
            soil: ground.kind, fill: ground.fill.round(3), evapotranspiration_mm: flow&.evapotranspiration&.round(2),
            drainage_mm: flow&.drainage&.round(2), runoff_mm: flow&.runoff&.round(2) }
        end

        def weather_file(record)
          { filename: record.filename, taken: record.taken?, columns: record.columns, report: record.told }
        end

        def calendar(calendar)
          entries = calendar.entries.map do |one|
            { uid: one.uid, kind: one.kind, title: one.title, from: one.from, to: one.to, text: one.text }
          end
          { property: calendar.property.name, zone: calendar.property.clock.name, entries: }
        end
      end
    end
  end
end
