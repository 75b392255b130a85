# frozen_string_literal: true

module Thistle
  module Web
    module Season
      # What the season band carries on a plant's or a patch's page: the plant's phases in one row, then when each
      # method that takes it out is right. [[label, css class, [[from, to, word], ...]], ...], the same all day.
      module BandRows
        METHODS = 4 # rows of them

        module_function

        # Of a plant wherever it stands on a property: where nothing else stands against a method.
        def of_plant(plant, property, today)
          of(property.facts(plant, today, natives_near: true, water_m: 1000.0), property, today)
        end

        def of_patch(patch, today) = of(patch.facts(today), patch.property, today)

        def of(facts, property, today)
          site = property.site(today)
          Core::Kept::ANSWERS.fetch([:rows, site, facts]) do
            bench = Core::Decide::Bench.new(facts, site)
            removals = property.weed?(facts.plant) ? bench.named.select(&:removes?) : []
            [phases(bench), *windows(bench, removals).first(METHODS)]
          end
        end

        def phases(bench)
          spans = bench.facts.calendar(bench.site).phenophases(bench.site.year(bench.facts.date))
          ["phases", "", spans.map { |span| [span.from, span.to, span.phase.to_s] }]
        end

        def windows(bench, removals)
          rows = removals.map do |removal|
            [removal.name, "window", bench.windows(removal).map { |one| [one.from, one.to] }]
          end
          rows.reject { |_, _, spans| spans.empty? }
        end
      end
    end
  end
end
