# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # Whether seed has fallen this year, asked once a visit: years of seedlings count from the last fall.
      module SeedFall
        ANSWERS = { "none" => "none yet", "falling" => "falling now", "fallen" => "fallen" }.freeze
        FELL = %w[falling fallen].freeze

        module_function

        # What the calendar expects of a plant on a day (Season::Phenology); nil for a plant that bears no seed.
        def expected(calendar, date)
          year = calendar.site.year(date)
          ripe = calendar.spells(:ripe_seed, year.start, year.finish)
          return if ripe.empty?

          if ripe.any? { |span| date.between?(span.from, span.to) } then "falling"
          else ripe.any? { |span| year.cover?(span.from) && span.to < date } ? "fallen" : "none"
          end
        end
      end
    end
  end
end
