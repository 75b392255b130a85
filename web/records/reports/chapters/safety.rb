# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Reports
        module Chapters
          # What can hurt, what is worn, who may do it.
          class Safety < Chapter
            TITLE = "Safety"

            private

            def write(part)
              return if treated.empty?

              part.caution("The label on the container is the law. Local codes, permits and licensed practice go " \
                           "before this plan.", source: "label")
              by_words(&:hazards).each_with_index do |(line, plants), n|
                part.heading("What can hurt") if n.zero?
                part.list([[of(line, plants), line.source]])
              end
              part.heading("What everyone wears")
              part.list(lines(safeties.flat_map(&:dress)))
              part.heading("Who may do it")
              part.list(by_words(&:who).map { |line, some| [of(line, some), line.source] })
            end

            # [[Removal, plant, Safety]] of every method on each kind of ground that it treats.
            def treated
              @treated ||= open_kinds.flat_map do |kind|
                @land.ways(kind).flat_map do |removal, some|
                  @land.grounds(some).map { |one| [removal, kind.plant, @land.safety(one, removal)] }
                end
              end
            end

            # How many plants by methods there are.
            def works = @works ||= treated.uniq { |removal, plant, _| [removal, plant] }.size

            def safeties = treated.map(&:last)

            # {Line => [what it is about]}
            def by_words
              treated.each_with_object({}) do |(removal, plant, safety), all|
                yield(safety).each { |line| (all[line] ||= []) << "#{plant.name}: #{removal.name.downcase}" }
              end
            end

            # What holds for all is said once; else for whom.
            def of(line, about)
              words = units.fill(line.text)
              about.uniq.size == works ? words : "#{words} (#{short(about.uniq)})"
            end

            def short(about)
              about.size > 4 ? "#{about.first(3).join("; ")}; and #{about.size - 3} more" : about.join("; ")
            end
          end
        end
      end
    end
  end
end
