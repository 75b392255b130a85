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

        # Hundreds of m², and mL on each.
        def hundreds = @hundreds ||= number("area")&.then { |typed| units.to_si(:area, typed) / 100 }
        def ml_a_hundred = @ml_a_hundred ||= number("rate")&.then { |typed| units.to_si(:rate, typed) * 1000 }

        def tank
          return unless hundreds && ml_a_hundred

          Core::Mix::Need.tank(area_m2: hundreds * 100, litres_per_100m2: ml_a_hundred / 1000)
        end

        private

        def thickness
          typed = number("diameter") or return
          Core::Mix::Need.dose(removal, width(typed), spacing_cm: number_typed("spacing")&.then { |one| width(one) },
                                                      cut_ml: volume_typed("cut"))
        end

        # cm, of what was typed in inches or cm.
        def width(typed) = units.us? ? typed * 2.54 : typed
      end
    end
  end
end
