# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      # Reads the mix bench: the palette's state, what the mix has to be, locks and bans; and solves it.
      class MixDesk
        attr_reader :desk, :form

        def initialize(params, desk, units, today)
          @params, @desk, @units, @today = params, desk, units, today
          @form = Forms::Mix.asked(params, desk.sheet.m2 || 50.0, units:, today:)
        end

        def locks = desk.ticked
        def bans = Array(@params["ban"]).grep(String)
        def months = @months ||= Core::Replant::BloomSeason.months(desk.site)
        def prices = @prices ||= own_price || Core::Replant::Stock.prices

        # Lots to sow, of the property's own region alone where that is asked for.
        def lots
          @lots ||= Store::SeedOnHand.to_sow(region: form.values[:own_seed] ? desk.region : nil)
        end

        # Is there something to solve?
        def asked? = form.ok? && desk.sheet.enough? && candidates.any?

        # Natives of the palette that come as what is wanted.
        def candidates
          @candidates ||= suited.map do |match|
            native = match.native
            months = native.showy? ? desk.blooms(native) : []
            Core::Replant::PlantMix::Candidate.new(native:, score: match.score, months:,
                                                   cost: cost(native), per_m2: seed? ? nil : per_m2(native))
          end
        end

        def mix
          @mix ||= Core::Replant::PlantMix.new(candidates, form.wish(locks:, bans:), months:, jobs: desk.sheet.jobs,
                                                                                m2: form.m2)
        end

        # The mix that was shown, where the page sends it back, so that what is kept is what was seen; else solved.
        def answer = @answer ||= shown || mix.answer

        # What the page sends back: "key:parts,key:parts".
        def as_shown = answer.items.map { |item| "#{item.native.key}:#{item.parts}" }.join(",")
        def one_more = @one_more ||= mix.one_more

        def amounts
          @amounts ||= Core::Replant::Amounts.new(answer.items, m2: form.m2, kind: form.kind, grid: form.values[:grid],
                                                                spacing_m: form.spacing_m, lots:, prices:,
                                                                rate: form.seed_rate)
        rescue Core::BadInput => e
          form.failed(e.field, "cannot be: #{e.message}")
          @amounts = Core::Replant::Amounts.new([], m2: form.m2, kind: form.kind)
        end

        def seed? = form.kind == "seed"

        # Chosen from a nearby region, on purpose.
        def from_nearby
          answer.items.map(&:native).select { |native| desk.palette.match(native.key)&.where == :nearby }
        end

        # More plants than a pickup takes at once: in how many loads.
        def pickups
          rows = amounts.rows.select(&:count)
          Core::Replant::Stock.pickups(rows.map { |row| [Core::Replant::Stock.of(row.native), row.count] })
        end

        # The address of the same mix with changes, {"take" => [...]}.
        def query(changes = {})
          own = form.raw.slice(*Forms::Mix::DEFAULTS.keys, *Forms::Mix::SOWN, "area", "budget", "price", "spacing")
          desk.query({ **own, "ban" => bans, **changes })
        end

        private

        # nil where nothing was sent, or what was sent is no mix of these natives.
        def shown
          parts = @params["shown"].to_s.split(",").to_h { |one| one.split(":", 2) }
          known = candidates.to_h { |one| [one.native.key, one] }
          total = Core::Replant::PlantMix::PARTS
          numbers = parts.transform_values { |text| Whole.read(text.to_s) }
          return unless numbers.any? && (numbers.keys - known.keys).empty? && numbers.values.sum == total

          items = numbers.map do |key, count|
            one = known.fetch(key)
            Core::Replant::PlantMix::Item.new(native: one.native, parts: count,
                                              cost: one.cost && (one.cost * form.m2 * count / total))
          end
          Core::Replant::PlantMix::Answer.new(items:, gaps: [], worth: nil, proved: nil)
        end

        def suited
          desk.palette.matches.select do |match|
            native = match.native
            next native.sown? if seed?

            native.planted? && native.woody? == (form.kind == "woody")
          end
        end

        def own_price
          price = form.values[:price]
          price.is_a?(Float) ? Core::Replant::Stock.prices.transform_values { price } : nil
        end

        def per_m2(native)
          spacing = form.spacing_m || (native.spacing_cm / 100.0)
          1 / (Core::Replant::PlantingRate::GRIDS.fetch(form.values[:grid]) * spacing * spacing)
        end

        def cost(native)
          return seed_cost(native) if seed?

          prices[Core::Replant::Stock.of(native)]&.then { |price| price * per_m2(native) }
        end

        def seed_cost(native)
          lot = lots[native.key]
          lot&.cost_g && (lot.cost_g * native.seeds_per_m2 / native.seeds_per_g / lot.live)
        end
      end
    end
  end
end
