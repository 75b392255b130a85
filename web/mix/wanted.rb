# frozen_string_literal: true

require "forwardable"

module Thistle
  module Web
    module Mix
      # How much mix the work needs, as it was typed on the bench: stubs at a dose, or ground at a spray volume.
      class Wanted
        extend Forwardable
        include Numbers

        def_delegators :@desk, :value, :errors, :units, :removal

        def initialize(desk)
          @desk = desk
        end

        # Stubs, not plants: plants times stems a plant, where both are typed; nil where it cannot be read.
        def stems
          plants, each = %w[plants each].map { |field| value(field).empty? ? nil : number(field) }
          plants && each ? (plants * each).round : number("stems")&.to_i
        end

        # mL a stem: by its thickness, where that was typed.
        def dose_ml = @dose_ml ||= value("diameter").empty? ? volume("dose") : thickness

        # Core::Mix::Need::Amount, or nil with errors. Raises BadInput as Need does.
        def jar
          count, dose = stems, dose_ml
          Core::Mix::Need.jar(stems: count, dose_ml: dose.round(3)) if count && dose
        end

        def tank
          area, rate = number("area"), number("rate")
          return unless area && rate

          Core::Mix::Need.tank(area_m2: units.to_si(:area, area), litres_per_100m2: units.to_si(:rate, rate))
        end

        private

        def thickness
          typed = number("diameter") or return
          Core::Mix::Need.dose(removal, units.us? ? typed * 2.54 : typed)
        end
      end
    end
  end
end
