# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      # Reads the replant bench: light, moisture, jobs and size, from the address over the record.
      class Desk
        attr_reader :light, :moisture, :jobs, :errors, :units

        def initialize(params, patch, units, site, region = nil)
          @params, @patch, @units, @site, @region = params, patch, units, site, region
          @errors = {}
          @light = params["light"] || patch&.light || "part"
          @moisture = params["moisture"] || patch&.moisture || (patch&.plant&.aquatic? ? "water" : "moist")
          @jobs = chosen_jobs
          @purity, @germination = %w[purity germination].map { |field| share(field) }
        end

        def shortlist = @shortlist ||= Core::Replant::Shortlist.new(light:, moisture:, jobs:, region: @region)
        def sowing = @sowing ||= Core::Replant::Sowing.new(@site)
        def grid = @params["grid"] == "square" ? "square" : "triangular"
        def purity_percent = @params["purity"] || "90"
        def germination_percent = @params["germination"] || "80"

        # The area as typed, in the property's units.
        def area
          @params["area"] || units.from_si(:area, @patch&.gross_m2 || 50).round(1).to_s.delete_suffix(".0")
        end

        def area_m2
          number = Float(area, exception: false)
          return units.to_si(:area, number) if number&.positive? && number < 1_000_000_000

          @errors[:area] = "The area is a number above 0."
          nil
        end

        def plugs(native)
          area_m2 && Core::Replant::Quantity.plugs(area_m2:, spacing_m: native.replant["spacing_cm"] / 100.0, grid:)
        end

        # Seed by pure live seed; nil for natives that are planted, not sown.
        def seed(native)
          rate, per_g = native.replant.values_at("seeds_per_m2", "seeds_per_g")
          return unless rate && area_m2 && @purity && @germination

          Core::Replant::Quantity.seed(area_m2:, seeds_per_m2: rate, seeds_per_g: per_g, purity: @purity,
                                       germination: @germination)
        end

        # Stores what goes back: the native chosen, its amount and its next window.
        def plan(patch)
          native = Core::Knowledge.shipped.plant(@params["native"])
          window = sowing.windows(native.replant["plant_in"]).first if native.replant
          raise Core::BadInput.new("#{native.name} has no planting window here.", field: :native) unless window
          raise Core::BadInput.new("The area is a number above 0.", field: :area) unless area_m2

          seed = native.replant["plant_in"] == "dormant" ? seed(native) : nil
          Store::Planting.create(patch_id: patch.id, native_key: native.key, area_m2:,
                                 plugs: seed ? nil : plugs(native).plugs,
                                 seed_g: seed&.bulk_g, from_on: window.from, to_on: window.to)
        end

        private

        def chosen_jobs
          picked = Array(@params["jobs"]).select { |job| Core::Replant::Shortlist::JOBS.key?(job) }
          return picked if picked.any?

          @patch&.plant&.jobs || ["ground_cover"]
        end

        def share(field)
          number = Float(public_send("#{field}_percent").to_s, exception: false)
          return number / 100 if number&.positive? && number <= 100

          @errors[field.to_sym] = "is above 0 and at most 100 %"
          nil
        end
      end
    end
  end
end
