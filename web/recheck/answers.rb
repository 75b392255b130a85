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
          ways = desk.answers.map do |answer|
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
              next_on: look.next&.on }
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

        def percents(answer)
          shares = { low: answer.low, likely: answer.mean, high: answer.high }
          { **shares.transform_values { |share| (100 * share).round(1) }, stems: answer.stems, records: answer.records }
        end

        def check(check)
          { checked_on: check.checked_on, resprouts: check.resprouts, missed: check.missed, suckers: check.suckers,
            seedlings: check.young, natives: check.natives, searchers: check.searchers, minutes: check.minutes,
            control_percent: check.control&.percent&.round(1),
            corrected_percent: check.corrected&.fetch(:percent)&.round(1), seed_fall: check.seed_fall }
        end
      end
    end
  end
end
