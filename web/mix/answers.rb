# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      # What the mix room answers as plain data for JSON, units in the names. docs/api.md describes each.
      module Answers
        module_function

        def bench(desk)
          { vessel: desk.vessel, method: desk.removal.key, product: named(desk.product),
            second: desk.second && named(desk.second), errors: desk.errors,
            objections: desk.objections.map { |text, source| { text:, source: } },
            answer: desk.answer && mixture(desk.answer), usage: desk.usage && usage(desk.usage),
            batch: desk.batch && batch(desk.batch.best), beside: desk.off_target&.rows&.map { |row| off_target(row) },
            limits: desk.limits && limits(desk.limits) }
        end

        def usage(usage)
          { records: usage.count, own: usage.own?, middle_ml: usage.median.round(3), low_ml: usage.low.round(3),
            high_ml: usage.high.round(3) }
        end

        def limits(board)
          rows = board.rows.map do |limit|
            { acid: limit.acid, lies_g_per_ha: limit.lies.round(1), after_g_per_ha: limit.after.round(1),
              most_g_per_ha: limit.most&.round(1), over: limit.over? }
          end
          { acids: rows, records_untold: board.untold }
        end

        def off_target(row)
          { method: row.removal.key, product: row.product.name, product_ml: row.product_ml.round(1),
            acid_g: row.acid_g&.round(2), reaches_low: row.low, reaches_high: row.high }
        end

        def batch(best)
          { ml: best.ml.round(1), enough: best.enough.round(3), left_over_ml: best.left_ml.round(1),
            cost: best.cost.round(2) }
        end

        def named(product) = { id: product.id, name: product.name, source: product.source }

        def mixture(answer)
          { total_ml: answer.total_ml.round(2), at_hand_ml: answer.at_hand_ml.round(2),
            product_ml: answer.product_ml.round(2),
            carrier_ml: answer.carrier_ml.round(2), carrier: answer.carrier, loads: answer.loads,
            load_ml: answer.load_ml.round(2), last_load_ml: answer.last_load_ml.round(2),
            strengths: answer.doses.map { |dose| { name: dose.product.name, **dose.strength.to_h.compact } },
            parts: answer.parts.map { |part| poured(part) }, to_bring: answer.to_bring.map { |part| poured(part) },
            acid_g: answer.acid_g.transform_values { |grams| grams&.round(2) }, asks: answer.asks,
            working: answer.working.map(&:to_json_data) }
        end

        def poured(part) = { name: part.name, ml: part.ml&.round(2), grams: part.grams&.round(3) }

        def calibration(desk)
          share, verdict = desk.wear
          { way: desk.way, litres_per_ha: desk.litres_per_ha&.round(3), pace_km_h: desk.pace&.round(3),
            wanted: desk.wanted&.transform_values do |one|
              one.round(4)
            end, nozzle: verdict && { off: share.round(4), verdict: },
            team: desk.team && team(desk), errors: desk.errors }
        end

        def team(desk)
          people = desk.people.zip(desk.team.each, desk.team.off).map do |(who, _), litres, off|
            { who:, litres_per_ha: litres.round(3), off: off.round(4) }
          end
          { people:, uneven: desk.team.uneven? }
        end

        def other_end(desk)
          { product: named(desk.product), poured: desk.poured&.to_h&.compact, carrier_to_add_ml: desk.to_add&.round(2),
            mix_ml: desk.reach&.round(2), stems: desk.stems, errors: desk.errors }
        end

        def records(records, rows)
          { rule: records.rule&.key, records: rows.map { |row| record(row) } }
        end

        def record(row)
          told = row.application
          { id: row.work.id, done_on: told.done_on, place: told.place, target: told.target, product: told.product,
            registration: told.registration, amount_ml: told.amount, amount_g: weighed(row.work),
            mix_ml: told.mix, area_m2: told.area,
            started: told.started, ended: told.ended, applicator: told.applicator, certification: told.certification,
            weather: row.work.hours_of_application, missing: row.missing, spot: row.spot, due_on: row.due_on,
            keep_until: row.keep_until, late: row.late }
        end

        # Grams of what was weighed; nil where nothing was.
        def weighed(work) = work.poured.filter_map(&:grams).then { |some| some.sum if some.any? }

        def product(row)
          label = row.label
          { id: label.id, name: label.name, form: label.form, aquatic: label.aquatic, ready_to_use: label.ready_to_use,
            density_kg_per_l: label.density&.round(4), actives: label.ingredients.map { |one| ingredient(one) },
            carriers: label.mixable? ? label.carriers : [], uses: label.uses.map(&:to_h),
            rainfast_h: label.rainfast_h, reentry_h: label.reentry_h,
            plant_back_days: label.plant_back_days, expires_on: label.expires_on,
            on_hand_ml: row.on_hand_ml&.round(1), in_use: row.in_use, warnings: row.warnings }
        end

        def ingredient(one)
          { active: one.key, percent: one.percent, g_per_l: one.grams_per_litre&.round(2),
            acid_percent: one.acid_percent&.round(3), acid_g_per_l: one.acid_per_litre&.round(2),
            most_acid_g_per_ha: one.most_g_per_ha&.round(1) }
        end
      end
    end
  end
end
