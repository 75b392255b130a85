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

        def check(check)
          { checked_on: check.checked_on, resprouts: check.resprouts, missed: check.missed, seedlings: check.seedlings,
            control_percent: check.control&.percent&.round(1), seed_fall: check.seed_fall }
        end
      end
    end
  end
end
