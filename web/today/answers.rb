# frozen_string_literal: true

module Thistle
  module Web
    module Today
      # What Today answers as plain data for JSON. docs/api.md describes it.
      module Answers
        module_function

        def today(board)
          { today: board.today, due_count: board.due_count,
            due: board.due.map { |task| Recheck::Answers.task(task).merge(patch: task[:code]) },
            conditions: board.conditions.rows.map { |row| conditions(row) },
            water: board.thirsty.map { |one| water(one) },
            planned: board.planned.map { |property, item| planned(property, item) },
            awaited: board.awaited.map { |task| awaited(task) },
            **early(board),
            agenda_counts: board.groups.transform_values(&:total),
            agenda: board.groups.values.flat_map(&:items).map { |item| row(board, item) } }
        end

        # What comes before the list.
        def early(board)
          { nameless: board.nameless.items.map { |patch| { id: patch.id, patch: patch.code, seen_on: patch.seen_on } },
            reports: board.reports.map { |report| { id: report.id, seen_on: report.seen_on } },
            hygiene: board.hygiene.map { |property, plants| { property: property.name, in_seed: plants.map(&:key) } } }
        end

        def water(owed)
          { patch: owed.patch.code, on: owed.on, fill: owed.fill.round(2), litres: owed.litres.round }
        end

        def conditions(row)
          { property: row.property.name, soil: row.now[:soil],
            fit: row.kinds.transform_values { |kind| kind.stretch&.to_h } }
        end

        def planned(property, item) = { property: property.name, **item.slice(:code, :method, :hours) }
        def awaited(task) = { patch: task[:code], event: JSON.parse(task.event), due_on: task.due_on }

        def row(board, item)
          { patch: board.patch(item.id).code, group: item.group, method: item.verdict.removal.key,
            verdict: item.verdict.kind, until: item.until, reason: item.reason&.said, again: board.again(item.id) }
        end

        MARKS = Store::Texts::MARK.join.freeze

        def found(found, texts)
          records = texts.rows.map do |one|
            { kind: one.kind, id: one.id, patch: one.patch_id, on: one.on_day, text: one.words.delete(MARKS) }
          end
          { query: found.query, records:, total: texts.total, instead: texts.instead, errors: texts.errors,
            plants: found.plants.map { |plant| { key: plant.key, name: plant.name } },
            natives: found.natives.map { |native| { key: native.key, name: native.name } },
            patches: found.patches.map { |patch| { id: patch.id, code: patch.code } },
            terms: found.terms.to_h { |entry| [entry.terms, entry.words] } }
        end

        def glossary(parts) = parts.transform_values { |entries| entries.to_h { |entry| [entry.terms, entry.words] } }
      end
    end
  end
end
