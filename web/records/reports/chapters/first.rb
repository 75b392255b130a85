# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Reports
        module Chapters
          # Which patches come first, and why.
          class First < Chapter
            TITLE = "First things first"
            MOST, REASONS = 12, 2

            private

            def write(part)
              rows = @land.ranked.first(MOST)
              part.table(%w[Patch Plant Method Why], rows.map { |row| line(row) },
                         hrefs: rows.map { |row| "/survey/patches/#{row.id}" })
              return if @land.ranked.size <= MOST

              part.text("#{patches(@land.ranked.size - MOST).capitalize} more are ranked after these.")
            end

            def line(row)
              verdict = row.candidate.verdict
              method = verdict.possible? ? "#{verdict.removal.name}, #{at(verdict)}" : "not known yet"
              [row.candidate.code, row.candidate.facts.plant.name, method, why(row)]
            end

            def at(verdict) = verdict.go? ? "now" : "from #{full_day(verdict.until)}"

            # The parts that lift it most.
            def why(row)
              weights = property.rank_weights
              parts = row.parts.select { |part| part.value >= 0.5 && weights[part.key].to_f.positive? }
              best = parts.max_by(REASONS) { |part| part.value * weights[part.key].to_f }
              best.map { |part| units.fill(part.text) }.join("; ")
            end
          end
        end
      end
    end
  end
end
