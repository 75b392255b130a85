# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # How much ready mix a piece of work takes: a dose a stem into a jar, or a volume over ground into a tank.
      class Need
        Amount = Value.define(:total_ml, :steps)
        SPARE = 1.1 # a tenth over for what stays in the brush and the hose (memory)
        MAX_STEMS = 1_000_000
        MAX_AREA_M2 = 10_000_000

        # The Amount of ready mix, mL, for stems at a dose, mL a stem. Raises BadInput (field :stems or :dose).
        def self.jar(stems:, dose_ml:)
          raise BadInput.new("Stems are a whole number above 0.", field: :stems) unless stems.positive?
          raise BadInput.new("More than a million stems: check the number.", field: :stems) if stems > MAX_STEMS
          raise BadInput.new("The dose for a stem is above 0 mL.", field: :dose) unless dose_ml.positive?

          total = stems * dose_ml * SPARE
          with_step("Mix for the stems", "#{stems} stems × {volume:#{dose_ml}} × #{SPARE} to spare", total)
        end

        # The Amount of ready mix, mL, for an area, m², at a volume, L on 100 m². Raises BadInput (field :area or
        # :rate).
        def self.tank(area_m2:, litres_per_100m2:)
          raise BadInput.new("The area is above 0.", field: :area) unless area_m2.positive?
          raise BadInput.new("More than 1 000 ha: check the area.", field: :area) if area_m2 > MAX_AREA_M2
          raise BadInput.new("The spray volume is above 0.", field: :rate) unless litres_per_100m2.positive?

          total = area_m2 * litres_per_100m2 * 10 * SPARE
          with_step("Spray for the ground",
                    "{area:#{area_m2.round(1)}} × {rate:#{litres_per_100m2.round(4)}} × #{SPARE} to spare", total)
        end

        def self.with_step(label, formula, total)
          step = Step.new(label:, formula:, value: total, unit: :volume, source: "memory")
          Amount.new(total_ml: total, steps: [step])
        end
        private_class_method :with_step
      end
    end
  end
end
