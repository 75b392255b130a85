# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Reports
        module Chapters
          # What to ask for before anyone begins, and what only licensed people do.
          class Permits < Safety
            TITLE = "Permits and licensed work"

            private

            def write(part)
              part.list(by_words(&:permits).map { |line, some| [of(line, some), line.source] })
              licensed = treated.select do |removal, _, _|
                removal.herbicide?
              end.uniq { |removal, plant, _| [removal, plant] }
              return if licensed.empty?

              part.heading("Licensed work")
              part.list(licensed.map do |removal, plant, _|
                ["#{plant.name}: #{removal.name.downcase}", removal.source]
              end)
              return if property.licensed

              part.caution("No licensed person is named for this property: this work waits until one is found.")
            end
          end
        end
      end
    end
  end
end
