# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Reports
        module Chapters
          # What is other than in the version before.
          class Changed < Chapter
            TITLE = "What changed since the last plan"

            private

            def write(part)
              before = @plan.before or return
              part.text("Compared with version #{before.version} of #{full_day(before.made_on)}.")
              rows = all_keys(before).filter_map { |key| row(key, before.sums[key], @plan.figures[key]) }
              part.table(["Plant", "Open patches", "Ground", "Hours, first pass"], rows, numbers: [1, 2, 3])
              part.text("Nothing changed in patches, ground or hours.") if rows.empty?
            end

            def all_keys(before) = @plan.figures.keys | before.sums.keys

            def row(key, was, now)
              return if was == now

              [library.plants[key]&.name || key, turned(was, now, "open", &:to_s),
               turned(was, now, "m2") { |m2| units.area(m2) }, turned(was, now, "hours") { |some| Words.hours(some) }]
            end

            # "3, was 5"; "new", "gone".
            def turned(was, now, figure)
              old, new = [was, now].map { |one| one && one[figure] }
              words = new ? yield(new) : "none"
              if old == new
                words
              else
                "#{words}, was #{old ? yield(old) : "none"}"
              end
            end
          end
        end
      end
    end
  end
end
