# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      # What the replant room answers as plain data for JSON. docs/api.md describes each.
      module Answers
        module_function

        def bench(desk)
          sheet = desk.sheet
          site = Core::Replant::SiteSheet::CHOICES.keys.to_h { |key| [key, sheet.said(key)&.to_h] }
          { site:, open: sheet.open, filters: desk.filters, turned_down: desk.palette.turned_down,
            natives: desk.palette.matches.map { |match| native(match, desk) }, errors: desk.errors }
        end

        def mix(mix)
          asked = { kind: mix.form.kind, area_m2: mix.form.m2, months: mix.months,
                    errors: { **mix.desk.errors, **mix.form.errors } }
          return asked.merge(items: [], gaps: [], impossible: nil) unless mix.asked?

          answer = mix.answer
          rows = answer.impossible ? [] : mix.amounts.rows
          asked.merge(candidates: mix.candidates.size, impossible: answer.impossible, proved: answer.proved,
                      gaps: answer.gaps.map(&:to_h), items: rows.map { |row| amount(row) },
                      carrier_l: rows.any? ? mix.amounts.carrier_l : nil, **sown(mix, rows),
                      one_more: mix.one_more&.native&.key)
        end

        # How thick it is sown, in every unit, and the nurse crop: of seed alone.
        def sown(mix, rows)
          return {} unless mix.seed? && rows.any?

          key, g_m2 = mix.form.nurse
          { rate: mix.amounts.rate_said.transform_values { |number| number.round(4) }, thickness: mix.amounts.thickness,
            nurse: key && { key:, grams: (g_m2 * mix.form.m2).round(1) } }
        end

        def lot(lot, today)
          seed = lot.to_core
          { id: lot.id, native: lot.native_key, name: lot.name, cleaned: lot.cleaned, purity: lot.purity,
            germination: lot.germination, dormant: lot.dormant, origin: lot.origin, origin_region: lot.origin_region,
            supplier: lot.supplier, tested_on: lot.tested_on, gathered_on: lot.gathered_on, grams: lot.grams,
            cost_g: lot.cost_g, live_share: seed.live.round(4), tagged: seed.tagged?,
            out_of_date: seed.out_of_date?(today) }
        end

        def when(board)
          weeks = board.weeks.map { |week| { **week.to_h, usual: week.usual, nine_in_ten: week.nine_in_ten } }
          { plan: board.plan.id, windows: board.windows.map { |window, natives| window(window, natives) }, weeks:,
            best_week: board.best&.date, cold: board.cold.map { |one| { **one.to_h, native: one.native.key } },
            readying: board.schools.map { |row| readying(row) } }
        end

        def readying(row)
          kept = row.to_h.slice(:key, :word, :from, :hours, :cost, :leaves)
          { **kept, reasons: row.reasons.map { |why| plain(why) } }
        end

        def window(window, natives) = { **window.to_h.except(:open), natives: natives.map(&:key) }

        def establishment(board, form)
          rows = board.rows.select(&:survival)
          { plan: board.plan.id, year: board.year, expected_cover: board.expected&.fetch("cover"),
            cover: board.cover && board.cover.last.to_h.except(:expected), errors: form.errors,
            natives: rows.map { |row| lives(row) }, not_planted: board.waiting.map(&:native_key) }
        end

        def lives(row)
          { native: row.native.key, planned: row.planting.plugs, planted: row.planted,
            planted_on: row.planting.done_on, alive: row.count&.alive,
            looked_at: row.count&.looked_at, survival: row.survival.to_h, again: row.again, enough: row.enough }
        end

        def spacing(form)
          closing = form.closing
          rows = closing ? closing.choices.map { |one| { spacing_m: one.spacing, **one.to_h.except(:spacing) } } : []
          { native: form[:native], per_m2: 100, choices: rows, best_m: closing&.best&.spacing, errors: form.errors }
        end

        def gather(board)
          { windows: board.windows.map { |one| { **one.to_h.except(:open), native: one.native.key } },
            divided: board.divided.map { |native, window| { native: native.key, from: window&.from, to: window&.to } },
            round: board.round.stops.map { |stop| { native: stop.place.native_key, position: stop.place.position } },
            round_m: board.round.metres.round, most_g: board.most_g&.round(2), errors: board.stand.errors }
        end

        def plan(board, errors)
          plan = board.plan
          { id: plan.id, patch: board.patch.code, kind: plan.kind, area_m2: plan.area_m2, version: plan.version,
            taken_back: !plan.deleted_at.nil?, reason: plan.reason, bed: plan.laid_out&.except(:rings),
            items: board.rows.map { |row| planned(row) }, errors: }
        end

        def planned(row)
          { letter: row.letter, native: row.native.key, share: row.share, stock: row.stock, plants: row.count,
            bulk_seed_g: row.bulk_g&.round(2), from: row.planting&.from_on, to: row.planting&.to_on,
            done_on: row.planting&.done_on, order_by: row.order_by }
        end

        def amount(row)
          { native: row.native.key, name: row.native.name, share: row.share, plants: row.count,
            pure_live_seed_g: row.pls_g&.round(2), bulk_seed_g: row.bulk_g&.round(2),
            live_seeds_m2: row.seeds_m2&.round(1), tagged: row.lot&.tagged?, cost: row.cost&.round(2) }
        end

        def first(ground)
          answer = ground.cleared? ? ground.answer : nil
          { patch: ground.patch.code, cleared: ground.cleared?, kind: answer&.kind, odds: answer&.odds,
            natives_cover: answer&.closed, seedlings_m2: answer&.seedlings, natives: ground.look&.natives,
            bare: ground.bare, look_on: ground.look_on,
            reasons: answer ? answer.reasons.map { |one| one.to_h.merge(text: plain(one.text)) } : [] }
        end

        def native(match, desk)
          native = match.native
          windows = desk.sowing.of(native).first(2)
          { native: native.key, name: native.name, scientific: native.scientific, score: match.score,
            at_home: match.where == :home, takes_over: match.taken, for: match.fors.map(&:to_h),
            against: match.againsts.map(&:to_h), blooms: desk.blooms(native), height_cm: native.height_cm,
            spacing_cm: native.spacing_cm, windows: windows.map { |window| window.to_h.except(:open) } }
        end

        def plain(text) = Core::Units.new.fill(text)
      end
    end
  end
end
