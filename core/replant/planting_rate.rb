# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # How many plugs, or how much seed, for an area in m².
      class PlantingRate
        Answer = Value.define(:plugs, :bulk_g, :pls_g, :working)
        GRIDS = { "triangular" => 0.8660254037844386, "square" => 1.0 }.freeze

        # spacing in m. Plugs on a square grid: area / s²; on a triangular one: area / (0.866 s²). Raises BadInput
        # (field :area, :spacing or :grid).
        def self.plugs(area_m2:, spacing_m:, grid: "triangular")
          raise BadInput.new("The area is above 0.", field: :area) unless area_m2.positive?
          raise BadInput.new("The spacing is above 0.", field: :spacing) unless spacing_m.positive?

          share = GRIDS.fetch(grid) { raise BadInput.new("The grid is triangular or square.", field: :grid) }
          density = 1 / (share * spacing_m * spacing_m)
          plugs = (area_m2 * density).ceil
          spacing = "{depth:#{(spacing_m * 100).round(1)}}"
          formula = "{area:#{area_m2.round(1)}} ÷ (#{"0.866 × " if grid == "triangular"}(#{spacing})²)"
          step = Step.new(label: "Plugs, #{grid} grid", formula:, value: plugs, source: "geometry")
          Answer.new(plugs:, working: [step])
        end

        # Bulk seed in g for `seeds_per_m2` live seeds, by pure live seed = purity x germination (both 0..1). Raises
        # BadInput (field :area, :purity or :germination).
        def self.seed(area_m2:, seeds_per_m2:, seeds_per_g:, purity:, germination:)
          raise BadInput.new("The area is above 0.", field: :area) unless area_m2.positive?

          { purity:, germination: }.each do |field, value|
            unless value.positive? && value <= 1
              raise BadInput.new("#{field.to_s.capitalize} is above 0 and at most 100 %.", field:)
            end
          end
          pls = purity * germination
          pure = area_m2 * seeds_per_m2 / seeds_per_g.to_f
          Answer.new(pls_g: pure, bulk_g: pure / pls,
                     working: seed_steps(area: area_m2, rate: seeds_per_m2, per_g: seeds_per_g, purity:, germination:,
                                         pure:))
        end

        def self.seed_steps(area:, rate:, per_g:, purity:, germination:, pure:)
          pls = purity * germination
          needed = "{area:#{area.round(1)}} × {dense:#{rate}} ÷ #{per_g} seeds/g"
          [Step.new(label: "Pure live seed", formula: needed, value: pure, unit: :mass, source: "memory"),
           Step.new(label: "PLS share", formula: "#{purity} × #{germination}", value: pls.round(4),
                    source: "pure_live_seed"),
           Step.new(label: "Seed to weigh out", formula: "{mass:#{pure.round(1)}} ÷ #{pls.round(4)}", value: pure / pls,
                    unit: :mass,
                    source: "pure_live_seed")]
        end
        private_class_method :seed_steps
      end
    end
  end
end
