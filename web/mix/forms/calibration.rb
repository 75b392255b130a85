# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      module Forms
        # Whose sprayer was measured.
        class Calibration < Form
          class Fields < Form::Contract
            params do
              required(:sprayer).filled(:string, max_size?: 80)
              optional(:person).filled(:string, max_size?: 80)
            end
          end

          # The stored calibration, or nil with errors.
          def store(desk, today)
            errors[:base] = "Measure first: there is nothing to keep." unless desk.litres_per_ha
            return unless ok?

            Store::Calibration.create(**values, way: desk.way, litres_per_ha: desk.litres_per_ha, km_h: desk.pace,
                                                done_on: today)
          end
        end
      end
    end
  end
end
