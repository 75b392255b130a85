# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # When a native goes into the ground at a site (knowledge/planting.yml): the next windows, and why.
      class Sowing
        Window = Value.define(:from, :to, :reason, :source, :open)
        # What a plant's file asks for, and the tables that it means.
        TABLES = { "dormant" => %w[dormant], "spring" => %w[spring], "spring_or_autumn" => %w[spring autumn],
                   "rains" => %w[rains], "summer_water" => %w[water] }.freeze

        def initialize(site)
          @site = site
        end

        # The same for a native that is planted, not sown; a mix of seed is sown in one go, while winter or the rains
        # work it in.
        def of(native, sown: false)
          return windows("dormant") if sown

          windows(native.plant_in == "dormant" ? "spring_or_autumn" : native.plant_in)
        end

        # [Window] still ahead or open today, soonest first.
        def windows(plant_in)
          years = [@site.year, @site.year(@site.today >> 12)]
          rows = TABLES.fetch(plant_in).filter_map { |table| row(table) }
          years.product(rows).filter_map { |year, row| window(year, row) }.uniq(&:from).sort_by(&:from)
        end

        private

        # The row for this climate where there is one, else that for every other.
        def row(table)
          rows = Knowledge.shipped.planting.fetch(table)
          rows.find { |one| one["climate"]&.include?(@site.climate.key) } || rows.find { |one| one["climate"].nil? }
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
