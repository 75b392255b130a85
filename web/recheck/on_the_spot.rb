# frozen_string_literal: true

module Thistle
  module Web
    module Recheck
      # What to do at once with what a look finds alive: the best method for it today by the rules, or when.
      class OnTheSpot
        # what: in words; verdict: Core::Decide::Verdict, nil where nothing is possible within a year.
        Line = Core::Value.define(:what, :verdict)
        FOUND = { stems: %i[resprouts missed suckers], seedlings: %i[seedlings frame_count] }.freeze

        # values: what was typed in the form of a look.
        def initialize(patch, values, today)
          @patch, @values, @today = patch, values, today
        end

        # [Line], none where nothing lives or nobody knows what it is.
        def lines
          return [] unless @patch.plant

          [line("What stands again", @patch.facts(@today), stems), line("Seedlings", small, seedlings)].compact
        end

        private

        def count(kind) = FOUND.fetch(kind).sum { |field| @values[field].to_i }
        def stems = count(:stems)
        def seedlings = [count(:seedlings), @values[:seedlings_seen] == "some" ? 1 : 0].max
        def small = @patch.facts(@today).with(size: "seedling", sizes: nil)

        def line(what, facts, number)
          return unless number.positive?

          here = facts.with(plants: number, stems: number, few: Core::Decide::Facts.few?(number, number))
          Line.new(what:, verdict: Core::Decide::Bench.new(here, @patch.property.site(@today)).best)
        end
      end
    end
  end
end
