# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Reports
        module Chapters
          # What the people of the land can do themselves: by hand, without herbicide, fire or machines.
          class Yourself < Chapter
            TITLE = "What you can do yourself"
            NOT_ALONE = %i[burning machine aquatic felling grazing].freeze
            HABITS = [
              ["Clean boots, tools and tyres before you leave: seed travels in mud.", "common_practice"],
              ["Take nothing from a patch elsewhere, and dump no garden plants.", "common_practice"],
              ["A new plant, or one that spreads: photograph it, note the place, and tell the steward.",
               "common_practice"]
            ].freeze
            private_constant :HABITS

            private

            def write(part)
              part.list(HABITS)
              open_kinds.each do |kind|
                found = by_hand(kind)
                next if found.empty?

                part.heading(kind.plant.name)
                part.list(found.map { |one| [said_of(one), one.removal.source] })
                warn_of(part, kind.open.last, found)
              end
            end

            # The best two that anyone who was briefed may do, at the smallest patch.
            def by_hand(kind)
              return [] if kind.plant.grave? || property.reports_first?(kind.plant)

              verdicts = @land.bench(kind.open.last).verdicts
              verdicts.select { |one| one.possible? && one.removal.removes? && open_to_all?(one.removal) }.first(2)
            end

            def open_to_all?(removal) = !removal.herbicide? && !removal.is?(*NOT_ALONE)

            def said_of(verdict)
              note = verdict.plant_note || verdict.removal.text
              wait = verdict.wait? ? " From #{full_day(verdict.until)}." : ""
              "#{verdict.removal.name}: #{note}#{wait}"
            end

            # What can hurt at this work, but for what holds for everybody out there.
            def warn_of(part, candidate, verdicts)
              hurts = verdicts.flat_map { |one| @land.safety(candidate, one.removal).hazards }.uniq
              everywhere = Core::Decide::Safety::FIELD.map { |key| library.cautions[key]["text"] }
              lines(hurts.reject { |line| everywhere.include?(line.text) })
                .each { |words, source| part.caution(words, source:) }
            end
          end
        end
      end
    end
  end
end
