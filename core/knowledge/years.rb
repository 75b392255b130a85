# frozen_string_literal: true

module Thistle
  module Core
    class Knowledge
      # When each invader is in each phase, in each region where it is at home: a table to read and to correct.
      class Years
        PHASES = %i[leaf flower green_seed ripe_seed].freeze

        # sites: {region => Season::Site}.
        def initialize(knowledge, sites)
          @knowledge, @sites = knowledge, sites
        end

        # The table as lines of text with tabs between.
        def lines
          rows = @knowledge.invaders.sort_by(&:name).flat_map do |plant|
            plant.regions.fetch("invasive", []).filter_map do |region|
              site = @sites[region]
              site && [plant.key, region, *PHASES.map { |phase| said(spells(plant, site, phase)) }]
            end
          end
          [["plant", "region", *PHASES.map { |phase| @knowledge.phases.fetch(phase)["label"] }], *rows]
            .map { |row| row.join("\t") }
        end

        # [[first day, last day]] of a phase that begin in the season-year of a site's day, or hold in all of it.
        def spells(plant, site, phase)
          year = site.year
          found = site.calendar(plant).spells(phase, year.start, year.finish)
          begun = found.select { |span| year.cover?(span.from) }
          (begun.empty? ? found : begun).map { |span| [span.from, span.to] }
        end

        private

        def said(spells)
          return "none" if spells.empty?

          spells.map { |from, to| (to - from).to_i >= 364 ? "all year" : "#{day(from)} to #{day(to)}" }.join(", ")
        end

        def day(date) = Dates.short(date)
      end
    end
  end
end
