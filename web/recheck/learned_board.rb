# frozen_string_literal: true

module Thistle
  module Web
    module Recheck
      # What works here: each plant and method with its records, beside the handbook; what stands out.
      class LearnedBoard
        Row = Core::Value.define(:plant, :removal, :answer, :by)
        BY = { size: "by thickness", season: "by season", who: "by who was there",
               strength: "by strength of the mix" }.freeze
        SHOWN, ODD = 40, 12
        WIDTH, HIGH, STEPS = 240.0, 46.0, 80

        # places: ids of the properties whose looks may be told one by one; the shares are of all records of the copy.
        def initialize(places)
          @places = places
          @efficacy = Store::Learned.efficacy
        end

        def rows
          @rows ||= @efficacy.cells.first(SHOWN).map do |plant, method|
            by = BY.keys.to_h { |what| [what, @efficacy.by(plant, method, what)] }.select { |_, told| told.size > 1 }
            Row.new(plant: Core::Knowledge.shipped.plant(plant), removal: Core::Knowledge.shipped.removal(method),
                    answer: @efficacy.of(plant, method), by:)
          end
        end

        # [[Seen, Store::Check]] of looks that stand out.
        def odd
          seen = @efficacy.odd.first(ODD)
          checks = here.where(id: seen.map(&:id)).eager(:patch, :treatment).as_hash(:id)
          seen.filter_map { |one| checks[one.id] && [one, checks[one.id]] }
        end

        # Looks that somebody left out.
        def left_out = here.where(left_out: true, deleted_at: nil).eager(:patch).reverse(:id).limit(ODD).all

        def here = Store::Check.where(patch_id: Store::Patch.unordered.where(property_id: @places).select(:id))

        # A curve of how likely each share is, as a path; its top is the frame's.
        def curve(beta)
          heights = (0..STEPS).map { |n| beta.density(n.fdiv(STEPS).clamp(0.002, 0.998)) }
          points = heights.each_with_index.map do |height, n|
            "#{(WIDTH * n / STEPS).round(1)} #{(HIGH - (HIGH * height / heights.max)).round(1)}"
          end
          "M0 #{HIGH}L#{points.join("L")}L#{WIDTH} #{HIGH}Z"
        end
      end
    end
  end
end
