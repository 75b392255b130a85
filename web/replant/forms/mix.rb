# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      module Forms
        # What a mix has to be: of which kind, for how much ground, how many natives, which shares, for what money.
        class Mix < Form
          KINDS = { "seed" => "seed", "plugs" => "plugs", "woody" => "shrubs and trees" }.freeze
          GRIDS = { "triangular" => "triangles", "square" => "squares" }.freeze

          class Fields < Form::Contract
            params do
              required(:kind).filled(:string, included_in?: KINDS.keys)
              required(:area).filled(:float, gt?: 0, lteq?: 100_000_000)
              required(:kinds).filled(:integer, gteq?: 1, lteq?: 40)
              optional(:grass_low).filled(:float, gteq?: 0, lteq?: 100)
              optional(:grass_high).filled(:float, gteq?: 0, lteq?: 100)
              required(:most).filled(:float, gteq?: 2.5, lteq?: 100)
              optional(:budget).filled(:float, gt?: 0, lteq?: 1_000_000_000)
              optional(:price).filled(:float, gteq?: 0, lteq?: 100_000)
              optional(:spacing).filled(:float, gt?: 0, lteq?: 10_000)
              required(:grid).filled(:string, included_in?: GRIDS.keys)
              optional(:sow).filled(:string, included_in?: Core::Replant::SeedRate::WAYS.keys)
              optional(:rate).filled(:float, gt?: 0, lteq?: 100_000)
              optional(:rate_unit).filled(:string, included_in?: Core::Replant::SeedRate::UNITS.keys)
              optional(:nurse).filled(:string, included_in?: Core::Knowledge.shipped.nurse.keys)
              optional(:nurse_rate).filled(:float, gt?: 0, lteq?: 100_000)
              optional(:cold).filled(:bool)
              optional(:own_seed).filled(:bool)
            end
            rule(:grass_low, :grass_high) do
              low, high = values[:grass_low], values[:grass_high]
              key(:grass_high).failure("is below the least") if low.is_a?(Float) && high.is_a?(Float) && high < low
            end
            rule(:kinds, :most) do
              kinds, most = values[:kinds], values[:most]
              next unless kinds.is_a?(Integer) && most.is_a?(Float)

              fills = kinds * (most / 2.5).floor >= Core::Replant::PlantMix::PARTS
              key(:most).failure("of so few kinds does not fill the ground") unless fills
            end
          end

          # What is asked where nobody said otherwise.
          DEFAULTS = { "kind" => "plugs", "kinds" => "12", "most" => "20", "grass_low" => "30", "grass_high" => "60",
                       "grid" => "triangular" }.freeze

          SOWN = %w[sow rate rate_unit nurse nurse_rate cold own_seed].freeze # of a mix of seed

          LARGE = 1000.0 # m², above which nobody plants plugs without being asked

          # The form of an address, for so much ground.
          def self.asked(params, m2, units:, today:)
            area = units.from_si(:area, m2).round(1).to_s.delete_suffix(".0")
            given = params.slice(*DEFAULTS.keys, *SOWN, "area", "budget", "price", "spacing")
            given["kind"] ||= "seed" if m2 > LARGE
            woody = given["kind"] == "woody" ? { "kinds" => "5", "most" => "50" } : {}
            new({ **DEFAULTS, "area" => area, **woody, **given }, units:, today:)
          end

          def kind = KINDS.key?(self[:kind]) ? self[:kind] : "plugs"
          # The area in m²; nil for what is no number, or past all numbers.
          def m2 = si(:area, :area)&.then { |m2| m2 if m2.finite? }
          def spacing_m = values[:spacing] && (units.us? ? values[:spacing] * 0.0254 : values[:spacing] / 100.0)

          # How thick it is sown (Core::Replant::SeedRate). Raises Core::BadInput (field :rate).
          def seed_rate
            Core::Replant::SeedRate.new(way: values[:sow] || "broadcast", number: values[:rate],
                                        unit: values[:rate_unit] || usual_unit)
          end

          def usual_unit = units.us? ? "seeds_ft2" : "seeds_m2"

          # [key, g on a square metre] of the nurse crop; nil without one. Its rate is typed in lb/ac or kg/ha.
          def nurse
            told = Core::Knowledge.shipped.nurse[values[:nurse]] or return
            unit = Core::Replant::SeedRate::UNITS.fetch(units.us? ? "lb_ac" : "kg_ha")
            [values[:nurse], values[:nurse_rate] ? values[:nurse_rate] * unit[1] : told["g_m2"][1]]
          end

          # How it is sown, as a plan keeps it.
          def sowing
            return {} unless kind == "seed"

            key, g_m2 = nurse
            { way: seed_rate.way, cold: values[:cold] || nil, nurse: key, nurse_g_m2: g_m2 }.compact
          end

          # Shares of grass that are kept to; none among shrubs.
          def grass
            return if kind == "woody" || (values[:grass_low].nil? && values[:grass_high].nil?)

            [(values[:grass_low] || 0) / 100.0, (values[:grass_high] || 100) / 100.0]
          end

          def wish(locks:, bans:)
            Core::Replant::PlantMix::Wish.new(kinds: values[:kinds], grass:, most: values[:most] / 100.0,
                                              budget: values[:budget], locks: locks - bans, bans:)
          end
        end
      end
    end
  end
end
