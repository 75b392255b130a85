# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # The best week to plant, as odds: each week tried in each of the years behind us with the rain, heat and frost
      # that came after. How often had it to be watered in its first year, how often would frost have lifted it?
      class PlantingOdds
        # date: the week's first day; waterings, frosts: of each year; within: share of years with at most FEW.
        Week = Value.define(:date, :waterings, :frosts, :within, :lifted) do
          def usual = waterings.sort[waterings.size / 2]
          def worst = waterings.max

          # What it asks of a crew, in waterings: the least is the best week.
          def cost = waterings.sum.fdiv(waterings.size) + (LIFTED * lifted)

          # The fewest waterings that did in nine of ten years.
          def nine_in_ten = waterings.sort[((waterings.size * 0.9).ceil - 1).clamp(0, nil)]
        end
        FEW = 3 # waterings that a crew can promise
        LIFTED = 2.0 # waterings that a frost which lifts plugs weighs as much as (memory)
        HEAVE, ROOTED = -4.0, 28 # °C of a night that lifts plugs, and days until they hold (memory)
        YEAR = 365

        # site: a Season::Site.
        def initialize(site)
          @site = site
          @texture = site.texture
        end

        # [Week] of a span of dates.
        def weeks(from, last) = from.step(last, 7).map { |date| week(date) }

        # The Week that begins on a date.
        def week(date)
          found = (@weeks ||= {})[date.yday] ||= begin
            years = starts(date).map { |start| grow(start) }
            waterings, frosts = years.transpose
            Week.new(date:, waterings:, frosts:, within: waterings.count { |n| n <= FEW }.fdiv(years.size),
                     lifted: frosts.count(&:positive?).fdiv(years.size))
          end
          found.with(date:)
        end

        # A day's weather as RootWater#pass takes it: mm that it could evaporate, mm of rain, how full the soil is.
        def self.weather(site, date)
          day = site.day(date)
          warm = day.tmean.positive?
          takes = warm ? Season::Sun.evapotranspiration(site.latitude, date.yday, day.tmin, day.tmax) : 0.0
          [takes, day.rain || 0.0, site.ground(date).fill]
        end

        private

        # The same day in each year behind us that has a whole year after it, counted from the first day of history.
        def starts(date)
          offset = (date - @site.year(date).start).to_i
          found = @site.history.map { |first| (first - @site.history.last).to_i + offset }
                       .select { |start| start + YEAR <= days.size }
          found.any? ? found : [0]
        end

        # Every day behind us: what RootWater takes of its weather, and its lowest °C.
        def days
          @days ||= (@site.history.last..@site.today).map do |date|
            [*self.class.weather(@site, date), @site.day(date).tmin]
          end
        end

        # [waterings in its first year, nights that lift it]
        def grow(start)
          roots = RootWater.new(@texture, fill: days[start][2])
          waterings = frosts = 0
          [YEAR, days.size - start].min.times do |age|
            takes, rain, ground, low = days[start + age]
            frosts += 1 if age < ROOTED && low <= HEAVE
            roots.pass(takes, rain, ground)
            next unless roots.thirsty?

            roots.water
            waterings += 1
          end
          [waterings, frosts]
        end
      end
    end
  end
end
