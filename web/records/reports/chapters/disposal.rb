# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Reports
        module Chapters
          # Where the material goes.
          class Disposal < Safety
            TITLE = "Where the material goes"

            private

            def write(part)
              treated.group_by { |_, plant, _| plant }.each do |plant, some|
                found = some.flat_map { |_, _, safety| [*safety.disposal, safety.never].compact }
                next if found.empty?

                part.heading(plant.name)
                part.list(lines(found))
              end
            end
          end
        end
      end
    end
  end
end
