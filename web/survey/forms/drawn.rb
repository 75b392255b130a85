# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      module Forms
        # A form with a shape drawn into it. A shape that cannot stand keeps the drawing; a crossed one offers a repair.
        class Drawn < Form
          attr_reader :repaired

          # A form as it is before anyone has typed.
          def self.blank(today)
            untouched({ const_get(:DAY) => today.iso8601 }, units: Core::Units.new, today:)
          end

          DAY = "seen_on"

          def with(extra)
            raw.merge!(extra)
            self
          end

          private

          # The Shape, or nil with the complaint set.
          def read_shape(missing: "Draw it on the map first.")
            shape = self["geometry"] && Core::Survey::Shape.parse(self["geometry"])
            errors[:geometry] = missing unless shape
            ok? ? shape : nil
          rescue Core::Survey::Shape::Crossed => e
            @repaired = e.repaired && JSON.generate(e.repaired)
            failed(:geometry, e.message) && nil
          rescue Core::BadInput => e
            failed(:geometry, e.message) && nil
          end
        end
      end
    end
  end
end
