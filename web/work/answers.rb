# frozen_string_literal: true

module Thistle
  module Web
    module Work
      # What the work room answers as plain data for JSON, units in the names. docs/api.md describes each.
      module Answers
        module_function

        def brief(desk)
          brief = desk.brief
          { patch: desk.patch.code, method: desk.removal.key, verdict: Decide::Answers.verdict(desk.verdict),
            steps: brief.steps, tools: brief.tools, roles: brief.roles, safety: Decide::Answers.safety(brief.safety),
            returns: desk.visits.map { |visit| visit(visit) } }
        end

        # What whoever does not keep the list reads of somebody; open: all of it.
        def person_card(person, open:)
          told = { id: person.id, name: person.name, roles: person.roles_kept, training: person.training_kept,
                   cannot: person.cannot_kept, licensed_until: person.licence_expires_on }
          open ? told.merge(licence_number: person.licence_number, emergency: person.emergency) : told
        end

        def person(row)
          one = row.person
          { id: one.id, name: one.name, roles: one.roles_kept, training: one.training_kept, cannot: one.cannot_kept,
            licence_expires_on: one.licence_expires_on, hours_this_year: row.hours, days_this_year: row.days,
            times_planned_hours: row.pace&.median&.round(3) }
        end

        def kit_item(one, today)
          { id: one.id, kind: one.kind, name: one.name, owned: one.owned, broken: one.broken, lent: one.lent,
            usable: one.usable, wants: one.wants(today) }
        end

        def work_day(board)
          day = board.work_day
          { id: day.id, held_on: day.held_on, from: day.starts_at, to: day.ends_at, people: day.crew.map(&:name),
            blocks: board.answer[:blocks], turns: board.answer[:turns], done: board.answer[:done],
            left_out: board.answer[:left_out], walk: board.answer[:walk], metres: board.answer[:metres],
            out_of_order: board.out_of_order, bodies: board.bodies, odds: board.answer[:odds], by: board.answer[:by] }
        end

        def field(board)
          cards = board.cards.map do |card|
            { patch: card.patch.code, method: card.removal&.key, hours: card.hours.round(3), running: card.open?,
              people: card.people, plants: card.plants, stems: card.stems, by_size: card.sizes, seed: card.seed,
              treated: card.treated }
          end
          { held_on: board.work_day.held_on, cards: }
        end

        def haul(desk)
          mean, thin, missing = desk.sampled
          { haul: desk.haul&.to_h, chips_m3: desk.mulch&.volume_m3&.round(3), sheets: desk.sheets,
            sampled: mean && { mean_cm: mean.round(2), thin:, missing_m3: missing.round(3) }, errors: desk.errors }
        end

        def water(desk)
          answer = desk.answer
          { way: answer&.way, ask: answer&.ask?, because: answer&.because&.map do |text|
            desk.units.fill(text)
          end, hours: desk.hours, errors: desk.errors }
        end

        def visit(visit) = { due_on: visit.due_on, kind: visit.kind, reason: visit.text, source: visit.source }

        def treatment(work)
          { done_on: work.done_on, method: work.method_key, plants: work.plants_done, stems: work.stems_done,
            buckets: work.buckets, area_m2: work.area_m2, product_ml: work.product_ml, seed_fall: work.seed_fall }
        end
      end
    end
  end
end
