# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Reports
        module Chapters
          # How each plant is treated, why, and what else was weighed.
          class Methods < Chapter
            TITLE = "Methods, and what else was weighed"
            ALSO, AGAINST = 2, 3 # methods that are said besides

            private

            def write(part)
              if open_kinds.any?
                part.text("What else was weighed is judged at each plant's largest patch; at another it may differ.")
              end
              open_kinds.each do |kind|
                part.heading(kind.plant.name, href: "/decide?patch=#{kind.open.first.id}")
                ways = @land.ways(kind)
                ways.each { |removal, some| part.text(way(removal, some), source: removal.source) }
                stuck(part, kind, ways.values.flatten)
                weighed(part, kind, ways.keys)
              end
            end

            def way(removal, some)
              verdict = some.first.verdict
              note = verdict.plant_note || removal.text
              "#{removal.name}, on #{patches(some.size)} (#{codes(some)}): #{note[0].downcase}#{note[1..]} " \
              "#{opens(some)}".strip
            end

            # Patches that no method can be named for.
            def stuck(part, kind, treated)
              left = kind.open - treated
              left.group_by { |one| one.verdict.deciding.first }.each do |reason, some|
                part.caution("#{codes(some)}: #{reason ? reason.said(units) : "no method is known to be right."}",
                             source: reason&.source)
              end
            end

            # What else would do at the largest patch, and what would not, with the reason.
            def weighed(part, kind, chosen)
              verdicts = @land.bench(kind.open.first).verdicts.reject { |one| chosen.include?(one.removal) }
              also = verdicts.select { |one| one.possible? && one.removal.removes? }.first(ALSO)
              against = verdicts.select { |one| one.no? && one.named && one.against }.first(AGAINST)
              part.list(also.map { |one| ["Also possible: #{one.removal.name}. #{takes(one)}", "memory"] } +
                        against.map do |one|
                          ["Not #{one.removal.name}: #{one.against.said(units)}", one.against.source]
                        end)
            end

            def takes(verdict)
              hours = hours(verdict.effort.hours_range)
              years = verdict.years_to_quiet
              ends = years ? "About #{Words.count(years, "year")} until quiet." : "It only holds the plant down."
              [hours && "#{hours[0].upcase}#{hours[1..]} hours a pass at the largest patch.", ends].compact.join(" ")
            end
          end
        end
      end
    end
  end
end
