# frozen_string_literal: true

module Thistle
  module Core
    module Survey
      # How the extent of patches changed, from versions that stood for a while each.
      class Growth
        # Extent that stood from a day until another (nil: still). infested_m2 is nil where nobody said.
        Version = Value.define(:from, :to, :gross_m2, :infested_m2)
        Year = Value.define(:year, :gross_m2, :infested_m2, :change_m2)

        # [Year] from what came and went in each: {year => [gross m², infested m²]}.
        def self.years_of(deltas, today)
          return [] if deltas.empty?

          gross = infested = 0.0
          (deltas.keys.min..today.year).map do |year|
            came, came_infested = deltas.fetch(year, [0.0, 0.0])
            infested += came_infested
            Year.new(year:, gross_m2: gross += came, infested_m2: infested, change_m2: came)
          end
        end

        def initialize(versions)
          @versions = versions.sort_by(&:from)
        end

        # [[day, gross m², infested m² or nil]] at every change, the present last.
        def steps(today)
          days = @versions.flat_map { |v| [v.from, v.to] }.compact.uniq.sort.select { |day| day <= today }
          (days | [today]).map do |day|
            standing = @versions.find { |v| v.from <= day && (v.to.nil? || v.to > day) }
            [day, standing&.gross_m2 || 0.0, standing ? standing.infested_m2 : 0.0]
          end
        end

        # Share by which the extent grew a year since the first version (negative: shrank); nil under half a year or
        # from nothing.
        def yearly(today)
          (first, before,), (last, now,) = steps(today).values_at(0, -1)
          years = (last - first) / 365.25
          return if years < 0.5 || !before&.positive? || !now&.positive?

          ((now / before)**(1 / years)) - 1
        end
      end
    end
  end
end
