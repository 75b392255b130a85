# frozen_string_literal: true

module Thistle
  module Web
    # The rows of a plant's year for plots/year.erb: its phases, then when each method is right.
    module YearRows
      LABEL = 19 # letters that fit beside the plot

      module_function

      # [[label, css class, [[from, to], ...]], ...]
      def of(bench) = phases(bench.spans) + windows(bench)

      def phases(spans)
        spans.map { |span| [Core::Season::Phenology::LABELS[span.phase], span.phase.to_s, [[span.from, span.to]]] }
      end

      def windows(bench)
        bench.removals.select { |r| r.removes? || r.is?(:freeing) }
             .map { |r| [short(r.name), "window", bench.windows(r)] }.reject { |_, _, spans| spans.empty? }
      end

      def short(name) = name.length > LABEL ? "#{name[0, LABEL - 1]}…" : name
    end
  end
end
