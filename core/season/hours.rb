# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # The hours ahead at a site with all that work asks of them: the feed's own, else taken from the day's low and
      # high.
      class Hours
        # at: hour on the clock; leaf_wet: rain or dew on it; inversion: may hold drift down; light: the sun is up.
        Now = Value.define(:date, :at, :temperature, :rain, :wind, :gust, :humidity, :delta_t, :soil, :leaf_wet,
                           :inversion, :light,
                           :standing)
        WARMEST = 15 # o'clock
        GUSTS = 1.5 # times the wind, where gusts are not measured (memory)
        DEW_GAP = 1.5 # °C above the dew point: leaves are wet (memory)
        CALM = 8.0 # km/h below which an inversion holds (memory)
        AFTER_RISE, BEFORE_SET = 2.0, 1.5 # hours (memory)
        DRIES = 2 # hours that a wet leaf takes by day (memory)

        def initialize(site)
          @site = site
        end

        # [Now] from midnight of today to the end of the forecast, at most 240.
        def all = @all ||= marked.freeze

        # Hours of one day taken from its low and high: coldest at sunrise, warmest at three, wind with the warmth, the
        # dew point the same all day. Rain may fall at any hour: a 24th in each.
        def self.of_day(day, rises)
          mean_dew = day.humidity && Air.dew_point(day.tmean, day.humidity)
          (0..23).map do |at|
            warmth = warmth(at, rises || 6.0)
            temperature = day.tmin + ((day.tmax - day.tmin) * warmth)
            Hour.new(at:, temperature: temperature.round(1), rain: day.rain && (day.rain / 24).round(2),
                     wind: day.wind && (day.wind * (0.55 + (0.9 * warmth))).round(1),
                     humidity: mean_dew && Air.humidity(temperature, mean_dew).round, standing: day.standing)
          end
        end

        # 0 at sunrise, 1 at three, and back.
        def self.warmth(at, rises)
          rising = WARMEST - rises
          at += 24 if at < rises
          share = at <= WARMEST ? (at - rises) / rising : 1 - ((at - WARMEST) / (24 - rising))
          (1 - Math.cos(Math::PI * share)) / 2
        end

        private

        def marked
          list = (@site.today..@site.horizon).flat_map { |date| hours(date) }
          wet = -DRIES - 1
          list.each_with_index.map do |hour, n|
            wet = n if (hour.rain || 1) > 0.1 || hour.leaf_wet
            hour.with(leaf_wet: n - wet <= DRIES)
          end
        end

        def hours(date)
          rises, sets = @site.sun(date)
          soil = @site.ground(date).kind
          hours = @site.known?(date) ? known(date, rises) : guessed(date, rises)
          hours.map { |hour| now(date, hour, rises, sets, soil) }
        end

        # The feed's hours; of one that is missing among them nothing is known.
        def known(date, rises)
          given = @site.feed.hourly(date).to_h { |hour| [hour.at, hour] }
          return self.class.of_day(@site.day(date), rises) if given.empty?

          given.size == 24 ? given.values : guessed(date, rises).map { |hour| given[hour.at] || hour }
        end

        # A day that no one measured: it is as warm as usual, and nothing is known of its wind, rain and dew.
        def guessed(date, rises)
          self.class.of_day(@site.day(date).with(wind: nil, rain: nil, humidity: nil), rises)
        end

        def now(date, hour, rises, sets, soil)
          dew = hour.humidity && Air.dew_point(hour.temperature, hour.humidity)
          Now.new(date:, at: hour.at, temperature: hour.temperature, rain: hour.rain, wind: hour.wind,
                  gust: hour.gust || hour.wind&.*(GUSTS),
                  humidity: hour.humidity, delta_t: hour.humidity && Air.delta_t(hour.temperature, hour.humidity),
                  soil:,
                  leaf_wet: dew && hour.temperature - dew < DEW_GAP, light: light?(hour.at, rises, sets),
                  inversion: inversion?(hour, rises, sets), standing: hour.standing)
        end

        # The sun is up from the whole hour after it rises to the one in which it sets; where it never sets, always.
        def light?(at, rises, sets)
          rises.nil? ? Sun.daylight(@site.latitude, @site.today.yday) > 12 : at >= rises && at + 1 <= sets
        end

        def inversion?(hour, rises, sets)
          return false if rises.nil? || (hour.rain || 0).positive? || (hour.wind || 0) >= CALM

          hour.at < rises + AFTER_RISE || hour.at + 1 > sets - BEFORE_SET
        end
      end
    end
  end
end
