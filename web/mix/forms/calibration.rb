# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      module Forms
        # Whose sprayer was measured.
        class Calibration < Form
          LONGEST = 80

          class Fields < Form::Contract
            params do
              required(:sprayer).filled(:string, max_size?: 80)
              optional(:person).filled(:string, max_size?: 80)
            end
          end

          # The stored calibration, or nil with errors. Of several people each one's is kept, and the one of all.
          def store(desk, today)
            errors[:base] = "Measure first: there is nothing to keep." unless desk.litres_per_ha
            return unless ok?

            known = { **values, way: desk.way, km_h: desk.pace, done_on: today }
            Store::Calibration.db.transaction do
              of_each(desk).each { |person, litres_per_ha| Store::Calibration.create(**known, person:, litres_per_ha:) }
              Store::Calibration.create(**known, litres_per_ha: desk.litres_per_ha,
                                                 person: desk.team ? together(desk) : values[:person])
            end
          end

          private

          def of_each(desk)
            return [] unless desk.team

            desk.people.map { |name, _| name }.zip(desk.team.each).reject { |name, _| name.empty? }
                .map { |name, litres| [name[0, LONGEST], litres] }
          end

          def together(desk)
            named = desk.people.map(&:first).reject(&:empty?)
            "#{named.size == desk.people.size ? named.join(", ")[0, LONGEST - 10] : desk.people.size} together"
          end
        end
      end
    end
  end
end
