# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # When a native goes into the ground at a site (knowledge/planting.yml): the next windows, and why.
      class Sowing
        Window = Value.define(:from, :to, :reason, :source, :open)
        # What a plant's file asks for, and the tables that it means.
        TABLES = { "dormant" => %w[dormant frost_seeding], "spring" => %w[spring],
                   "spring_or_autumn" => %w[spring autumn], "rains" => %w[rains], "summer_water" => %w[water],
                   "warm_seed" => %w[warm_seed], "bare_root" => %w[bare_root autumn] }.freeze
        ASLEEP = %w[bare_root stakes].freeze # stock that is moved while it sleeps

        def initialize(site)
          @site = site
        end

        # The same for a native that is planted, not sown; what comes as bare root or stakes is moved asleep.
        def of(native, sown: false)
          return of_mix([native]) if sown
          return windows("bare_root") if asleep?(native)

          windows(native.plant_in == "dormant" ? "spring_or_autumn" : native.plant_in)
        end

        # Of a mix that is sown in one go: while winter or the rains work it in; in spring where each kind sprouts
        # without winter, or lay cold and moist before (cold: it was made so).
        def of_mix(natives, cold: false)
          spring = natives.all? { |one| one.warm_season? || cold || !one.cold_moist? } ? windows("warm_seed") : []
          (windows("dormant") + spring).sort_by(&:from)
        end

        # [Window] still ahead or open today, soonest first.
        def windows(plant_in)
          years = [@site.year, @site.year(@site.today >> 12)]
          rows = TABLES.fetch(plant_in).filter_map { |table| row(table) }
          years.product(rows).filter_map { |year, row| window(year, row) }.uniq(&:from).sort_by(&:from)
        end

        private

        def asleep?(native)
          native.woody? && ASLEEP.include?(Stock.of(native)) && windows("bare_root").any?
        end

        # The row for this climate where there is one, else that for every other; nil where it is not done here.
        def row(table)
          rows = Knowledge.shipped.planting.fetch(table)
          found = rows.find { |one| one["climate"]&.include?(@site.climate.key) }
          found ||= rows.find { |one| one["climate"].nil? }
          found unless found["never"]
        end

        def window(year, row)
          from, to = row.values_at("from", "to").map { |moment| date(year, moment) }
          return unless from && to && to > from && to >= @site.today

          Window.new(from:, to:, reason: row["text"], source: row["source"], open: @site.today.between?(from, to))
        end

        def date(year, moment)
          year.moment(moment["anchor"].to_sym)&.then { |found| found.date + moment.fetch("days", 0) }
        end
      end
    end
  end
end
