# frozen_string_literal: true

module Thistle
  module Web
    module Work
      # A patch, a method, the brief for both, and the record to fill in with what is known already.
      class Desk
        # What the mix room knows already.
        CREW = 4
        POURED = %w[active_key product_id product second_product_id second_product mix].freeze

        attr_reader :patch, :removal

        def initialize(params, patch, units, today)
          @params, @patch, @units, @today = params, patch, units, today
          @removal = Core::Knowledge.shipped.methods_of_removal[params["method"] || params["method_key"]] || best
        end

        def bench = @bench ||= Core::Decide::Bench.new(patch.facts(@today), patch.property.site(@today))
        def verdict = @verdict ||= bench.verdicts.find { |v| v.removal == removal } || bench.verdict(removal)
        def methods_here = (bench.removals | [removal]).reject { |r| r.key == "report_only" }
        def brief = @brief ||= Core::Work::Brief.new(bench.situation, removal)

        # Return visits that would follow if it were done today.
        def visits
          site = patch.property.site(@today)
          Core::Recheck::Returns.new(plant: patch.plant, removal:, done_on: @today, site:).visits
        end

        # What is known is filled in; what is only likely is a hint.
        def form
          calendar = patch.property.site(@today).calendar(patch.plant)
          typed = { "done_on" => @today.iso8601, "method_key" => removal.key,
                    "seed_fall" => Core::Recheck::SeedFall.expected(calendar, @today) }.compact
          typed = typed.merge(@params.slice(*POURED))
          Forms::Treatment.untouched(typed, units: @units, today: @today).tap { |form| form.hints = hints }
        end

        # {field => likely}: of all that stands there, by a crew of CREW.
        def hints
          hours = verdict.hours && [(verdict.hours / CREW).ceil(1), 0.25].max.clamp(0.25, 8)
          area = patch.infested && @units.from_si(:area, bench.facts.area_m2).round
          { crew_size: CREW, hours:, plants_done: there&.plants, stems_done: there&.stems, area: }
            .compact.transform_values { |number| "about #{Core::Decimal.apart(number)}" }
        end

        # What stands there (Store::PatchStanding::There).
        def there = patch.history.there(@today)

        private

        def best = bench.verdicts.first.removal
      end
    end
  end
end
