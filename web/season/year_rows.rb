# frozen_string_literal: true

module Thistle
  module Web
    module Season
      # The rows of a plant's year for plots/year.erb: its phases, then when each method is right.
      # [[label, css class, [[from, to, css class or nil, early, late], ...]], ...]
      module YearRows
        LABEL = 19 # letters that fit beside the plot
        # Which phases share a row, under the name of the first.
        SHARED = { leaf: %i[leaf emerging], flower: %i[flower budding], green_seed: %i[green_seed hardening],
                   ripe_seed: %i[ripe_seed shedding] }.freeze

        module_function

        def of(bench)
          facts = bench.facts
          phases(facts.calendar(bench.site).phenophases(bench.site.year(facts.date))) + windows(bench)
        end

        # Each start with its spread this year.
        def phases(spans)
          SHARED.filter_map do |main, kinds|
            own = kinds.flat_map { |kind| spans.select { |span| span.phase == kind } }
            if own.any?
              [label(main), main.to_s, own.map { |span| [span.from, span.to, span.phase.to_s, span.early, span.late] }]
            end
          end
        end

        def label(phase) = Core::Knowledge.shipped.phases.fetch(phase)["label"]

        def windows(bench)
          bench.named.select { |r| r.removes? || r.is?(:freeing) }
               .map { |r| row(r, bench.windows(r)) }.reject { |_, _, spans| spans.empty? }
        end

        def row(removal, windows) = [short(removal.name), "window", windows.map { |w| [w.from, w.to] }]

        def short(name) = name.length > LABEL ? "#{name[0, LABEL - 1]}…" : name
      end
    end
  end
end
