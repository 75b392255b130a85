# frozen_string_literal: true

module Thistle
  module Web
    module Recheck
      # What the recheck room answers as plain data for JSON, units in the names. docs/api.md describes each.
      module Answers
        module_function

        def tasks(turns) = { total: turns.total, tasks: turns.rows.map { |one| task(one).merge(patch: one[:code]) } }

        def task(task)
          { kind: task.kind, due_on: task.due_on, reason: task.reason, source: task.source,
            happened_on: task.happened_on, waits_for: task.event && JSON.parse(task.event) }.compact
        end

        def learned(board)
          rows = board.rows.map do |row|
            { plant: row.plant.key, method: row.removal.key, **percents(row.answer), planned: row.answer.planned,
              by: row.by.transform_values { |told| told.transform_values { |one| percents(one) } } }
          end
          { rows:, odd: board.odd.map { |seen, check| { check: check.id, treated: seen.treated, alive: seen.alive } } }
        end

        def outlook(desk)
          ways = desk.played.map do |answer|
            { way: answer.strategy.key, quiet_years: answer.quiet, failed: answer.failed.round(3),
              gone: answer.gone.round(3), hours: answer.hours, litres: answer.litres, money: answer.money,
              years: answer.years.each_with_index.map { |year, n| { year: desk.first_year + n, **year.to_h } } }
          end
          { patch: desk.patch.code, plants: desk.plants, counted: desk.counted?, fit: desk.fit, ways:,
            taken: desk.stages.taken, errors: desk.errors }
        end

        def skip(board)
          rows = board.rows.map do |row|
            { patch: row.patch.code, method: row.removal.key, later_hours: row.hours.round(2),
              later_money: row.money.round(2), fails_more: row.failed.round(3) }
          end
          { hours: board.hours.round(1), money: board.money.round, currency: board.currency, rows:,
            others: board.others }
        end

        def quiet(board)
          looks = board.looks.map do |look|
            { patch: look.patch.code, chance: look.chance.round(5), stands: look.presence.stands.round(5),
              hours: look.hours.round(3), saves: look.saves.round(2), look_at: board.chosen.include?(look.patch.id),
              next_on: look.next_on }
          end
          { hours: board.taken.round(3), looks:, others: board.others, errors: board.errors }
        end

        def trial(run)
          board = TrialBoard.new(run)
          arms = [0, 1].map do |arm|
            low, high = board.range(arm).values
            { name: board.name(arm), **board.arms[arm].to_h, low_percent: low, high_percent: high }
          end
          { id: run.id, patch: run.patch.code, question: run.question, begun_on: run.begun_on, ended_on: run.ended_on,
            arms:, first_better: board.trial.first_better.round(6), settled: board.trial.settled, said: board.said,
            tags: run.stems.map { |stem| stem.values.slice(:number, :arm, :alive, :given_on, :counted_on) } }
        end

        def origin(desk)
          sources = desk.shares.to_a.map do |answer|
            { source: answer.source.key, share: answer.share.round(4), of: answer.of.map { |chance| chance.round(4) } }
          end
          { seedlings: desk.points, sources:, far: desk.shares ? desk.far : [], errors: desk.errors }
        end

        def review(board)
          review = board.review
          due, late, = review.missed
          methods = review.tried.map do |one|
            { plant: one.plant.key, method: one.removal.key, treated: one.control.treated, alive: one.control.alive,
              low: one.control.low.round(1), high: one.control.high.round(1), verdict: one.verdict,
              hours: one.hours.round(2), treatments: one.records }
          end
          patches = review.by_patch.map do |one|
            { patch: one.patch.code, hours: one.hours.round(2), killed: one.killed }
          end
          { year: board.year, **review.worked.to_h, visits_due: due, visits_missed: late, methods:, by_patch: patches,
            grew: review.grew.map { |patch, before, after| { patch: patch.code, before_m2: before, after_m2: after } },
            change: review.change.map { |patch, removal| { patch: patch.code, method: removal.key } } }
        end

        def life(life)
          compared = life.compared.map do |was|
            { on: was.on, state: was.state, ground_m2: was.square_m, alive: was.look&.alive, works: was.works,
              hours: was.hours }
          end
          { patch: life.patch.code, states: life.states.map { |from, to, state| { from:, to:, state: } },
            counts: life.counts.map { |on, alive| { on:, alive: } }, compared:, errors: life.errors,
            ahead: life.outlook ? life.years.map { |on, stands| { on:, standing: stands } } : [] }
        end

        def percents(answer)
          shares = { low: answer.low, likely: answer.mean, high: answer.high }
          { **shares.transform_values { |share| (100 * share).round(1) }, stems: answer.stems, records: answer.records }
        end

        def check(check)
          { checked_on: check.checked_on, resprouts: check.resprouts, missed: check.missed, suckers: check.suckers,
            seedlings: check.young, natives: check.natives, searchers: check.searchers, minutes: check.minutes,
            control_percent: check.control&.percent&.round(1),
            by_size: check.by_size.transform_values { |control| control.percent.round(1) },
            corrected_percent: check.corrected&.fetch(:percent)&.round(1), seed_fall: check.seed_fall }
        end
      end
    end
  end
end
