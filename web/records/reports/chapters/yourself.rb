# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Reports
        module Chapters
          # What the people of the land can do themselves: by hand, without herbicide, fire or machines.
          class Yourself < Chapter
            TITLE = "What you can do yourself"
            HABITS = [
              ["Clean boots, tools and wheels before you leave: seed travels in mud.", "common_practice"],
              ["Take nothing from a patch elsewhere, and dump no garden plants.", "common_practice"],
              ["A new plant, or one that spreads: photograph it, note the place, and tell the steward.",
               "common_practice"]
            ].freeze
            private_constant :HABITS

            private

            def write(part)
              part.list(HABITS)
              open_kinds.each do |kind|
                ways = by_hand(kind)
                next if ways.empty?

                part.heading(kind.plant.name)
                ways.each do |removal, some|
                  part.list([[said_of(removal, some), removal.source]])
                  warn_of(part, removal, some)
                end
              end
            end

            # Of the land's own moves those that anyone who was briefed may do, on the patches that they are right for.
            def by_hand(kind)
              return {} if kind.plant.grave? || property.reports_first?(kind.plant)

              @land.ways(kind).select { |removal, _| removal.removes? && open_to_all?(removal) }
            end

            # No herbicide, no fire, no stock, and nothing that asks for somebody trained (knowledge/crew.yml).
            def open_to_all?(removal)
              asked = library.crew["needs"].flat_map { |need| need["tags"] }.map(&:to_sym)
              !removal.herbicide? && !removal.is?(:machine, :burning, :grazing, *asked)
            end

            def said_of(removal, some)
              note = some.first.verdict.plant_note || removal.text
              ["#{removal.name}, on #{codes(some)}: #{note}", opens(some)].reject(&:empty?).join(" ")
            end

            # What can hurt at this work, but for what holds for everybody out there.
            def warn_of(part, removal, some)
              hurts = @land.grounds(some).flat_map { |one| @land.safety(one, removal).hazards }.uniq
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
