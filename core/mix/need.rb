# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # How much ready mix a piece of work takes: a dose a stem into a jar, or a volume over ground into a tank.
      class Need
        Amount = Value.define(:total_ml, :steps)
        SPARE = 1.1 # a tenth to have at hand besides, for what stays in brush and hose (memory); it is not sprayed
        MAX_STEMS = 1_000_000
        MAX_AREA_M2 = 10_000_000

        # The Amount of ready mix, mL, for stems at a dose, mL a stem. Raises BadInput (field :stems or :dose).
        def self.jar(stems:, dose_ml:)
          raise BadInput.new("Stems are a whole number above 0.", field: :stems) unless stems.positive?
          raise BadInput.new("More than a million stems: check the number.", field: :stems) if stems > MAX_STEMS
          raise BadInput.new("The dose for a stem is above 0 mL.", field: :dose) unless dose_ml.positive?

          with_step("Mix for the stems", "#{stems} stems × {volume:#{dose_ml}}", stems * dose_ml)
        end

        # Planning values (memory): how deep the outer ring of a stub is that still lives, how thick mix lies on it and
        # on bark, how high the band on bark is; a cut for each inch of trunk, and what goes into one.
        RING_MM, FILM_MM, BARK_FILM_MM, BAND_CM = 10.0, 1.3, 0.27, 40.0
        CM_A_CUT, ML_A_CUT = 2.54, 1.0
        WIDEST_CM = 300.0

        # mL that wet the living ring of a stub, all of its face where it is thin. Raises BadInput (field :diameter).
        def self.ring(diameter_cm, ring_mm: RING_MM, film_mm: FILM_MM)
          outer = check_diameter(diameter_cm) / 2
          inner = [outer - (ring_mm / 10), 0].max
          Math::PI * ((outer**2) - (inner**2)) * film_mm / 10
        end

        # mL for the cuts around a trunk, one for each inch of its thickness, one at least; spacing_cm: from middle to
        # middle of cuts around it, where the label says that. Raises BadInput (field :diameter or :spacing).
        def self.cuts(diameter_cm, ml: ML_A_CUT, spacing_cm: nil) = count_cuts(diameter_cm, spacing_cm) * ml

        # How many that are: no two further apart than the spacing. Raises BadInput (field :diameter or :spacing).
        def self.count_cuts(diameter_cm, spacing_cm = nil)
          check_diameter(diameter_cm)
          return [(diameter_cm / CM_A_CUT).round, 1].max unless spacing_cm
          unless spacing_cm.between?(1, 50)
            raise BadInput.new("Cuts are 1 to 50 cm (0.4 to 20 in) apart.", field: :spacing)
          end

          [((Math::PI * diameter_cm / spacing_cm) - 1e-9).ceil, 1].max
        end

        # mL that wet the bark all round from the ground up. Raises BadInput (field :diameter).
        def self.band(diameter_cm, height_cm: BAND_CM, film_mm: BARK_FILM_MM)
          Math::PI * check_diameter(diameter_cm) * height_cm * film_mm / 10
        end

        # mL for one stem of a method by its thickness and where it goes; nil where the method is for leaves. Of cuts:
        # how far apart, and how much goes into one, where that was typed.
        def self.dose(removal, diameter_cm, spacing_cm: nil, cut_ml: nil)
          case removal.use
          when "hack" then cuts(diameter_cm, ml: cut_ml || ML_A_CUT, spacing_cm:)
          when "basal" then band(diameter_cm)
          when "cut_stump" then ring(diameter_cm)
          end
        end

        def self.check_diameter(diameter_cm)
          return diameter_cm if diameter_cm.positive? && diameter_cm <= WIDEST_CM

          raise BadInput.new("A stem is above 0 and at most #{WIDEST_CM.round} cm thick.", field: :diameter)
        end

        # The Amount of ready mix, mL, for an area, m², at a volume, L on 100 m². Raises BadInput (field :area or
        # :rate).
        def self.tank(area_m2:, litres_per_100m2:)
          raise BadInput.new("The area is above 0.", field: :area) unless area_m2.positive?
          raise BadInput.new("More than 1 000 ha (2 471 ac): check the area.", field: :area) if area_m2 > MAX_AREA_M2
          raise BadInput.new("The spray volume is above 0.", field: :rate) unless litres_per_100m2.positive?

          with_step("Spray for the ground", "{area:#{area_m2.round(1)}} × {rate:#{litres_per_100m2.round(4)}}",
                    area_m2 * litres_per_100m2 * 10)
        end

        def self.with_step(label, formula, total)
          step = Step.new(label:, formula:, value: total, unit: :volume, source: "memory")
          Amount.new(total_ml: total, steps: [step])
        end
        private_class_method :with_step, :check_diameter
      end
    end
  end
end
