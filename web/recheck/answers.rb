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

        def percents(answer)
          shares = { low: answer.low, likely: answer.mean, high: answer.high }
          { **shares.transform_values { |share| (100 * share).round(1) }, stems: answer.stems, records: answer.records }
        end

        def check(check)
          { checked_on: check.checked_on, resprouts: check.resprouts, missed: check.missed, seedlings: check.seedlings,
            control_percent: check.control&.percent&.round(1), seed_fall: check.seed_fall }
        end
      end
    end
  end
end
