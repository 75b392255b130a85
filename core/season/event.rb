# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # Something that a task can wait for instead of a date: rain (mm within some days), frosts (a number of them),
      # anchor (a mark of the year), browned grass.
      # after: days from it to the task.
      Event = Value.define(:kind, :mm, :within, :count, :anchor, :after)

      # Reads an event, says it, and finds when it happened or is likely to.
      class Event
        # date: when it happened, is forecast or is likely (the median); nil where it never comes here. standing:
        # :happened, :forecast, :expected or :never.
        Outcome = Value.define(:date, :standing) do
          def happened? = standing == :happened
        end
        AHEAD = 420 # days to look
        APART = 14 # days between what was done and the next mark of the year that counts
        FROST = 0.0 # °C

        # From {"rain_mm" => 20, "within" => 3}, {"frosts" => 3}, {"anchor" => "full_leaf"}, {"browned" => true}.
        def self.read(data)
          after = data["days_after"] || 0
          return new(kind: :rain, mm: data["rain_mm"], within: data["within"] || 1, after:) if data["rain_mm"]
          return new(kind: :frosts, count: data["frosts"], after:) if data["frosts"]
          return new(kind: :browned, after:) if data["browned"]

          new(kind: :anchor, anchor: data.fetch("anchor").to_sym, after:)
        end

        # As Event.read takes it and knowledge/returns.yml writes it: strings and numbers, mm of rain.
        def to_data
          { rain: { "rain_mm" => mm, "within" => within }, frosts: { "frosts" => count },
            browned: { "browned" => true },
            anchor: { "anchor" => anchor.to_s } }.fetch(kind).merge("days_after" => after)
        end

        # The day of the task, or nil where the event never comes.
        def due(site, since) = resolve(site, since).date&.+(after)

        # In words: "20 mm of rain within 3 days". units: Core::Units.
        def said(units)
          case kind
          when :rain then "#{units.rain(mm)} of rain#{within > 1 ? " within #{within} days" : " in a day"}"
          when :frosts then count == 1 ? "the first frost" : "#{count} frosts"
          when :browned then "the grass has browned"
          else Knowledge.shipped.anchors.fetch(anchor.to_s).label
          end
        end

        # Outcome at a site for something that waits since a day.
        def resolve(site, since)
          case kind
          when :anchor then mark(site, since, anchor)
          when :browned then mark(site, since, site.climate.rain_driven? ? :cured_grass : :third_frost)
          else weather(site, since)
          end
        end

        private

        # The first day of measured weather and forecast that does it; else the median of the futures. What is only
        # usual, or a region's broad value, has not happened here.
        def weather(site, since)
          from = since + 1
          known = (from..site.horizon).map { |date| site.day(date) }.map { |day| day if TOLD.include?(day.standing) }
          at = first(known)
          return later(site, from) unless at

          Outcome.new(date: from + at, standing: from + at <= site.today ? :happened : :forecast)
        end

        def later(site, from)
          found = site.futures(from, AHEAD).filter_map { |days| first(days) }
          return Outcome.new(standing: :never) if found.size * 2 <= site.history.size

          middle = from + Percentile.spread(found)[1]
          Outcome.new(date: [middle, site.horizon + 1].max, standing: :expected)
        end

        TOLD = %i[measured forecast].freeze
        private_constant :TOLD

        # The place of the day that does it; a day that nobody measured (nil) does nothing.
        def first(days)
          kind == :rain ? soaked(days) : days.each_index.select { |n| days[n] && days[n].tmin <= FROST }[count - 1]
        end

        def soaked(days)
          sum = 0.0
          days.index.with_index do |day, n|
            sum += day&.rain || 0
            sum -= days[n - within]&.rain || 0 if n >= within
            sum >= mm - 1e-9
          end
        end

        # The mark's next coming, at least two weeks off.
        def mark(site, since, key)
          found = [since, since >> 12].filter_map { |date| site.year(date).moment(key) }
                                      .find { |anchor| anchor.date > since + APART }
          return Outcome.new(standing: :never) unless found

          standing = found.measured && found.date <= site.today ? :happened : :expected
          Outcome.new(date: found.date, standing:)
        end
      end
    end
  end
end
