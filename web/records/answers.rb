# frozen_string_literal: true

module Thistle
  module Web
    module Records
      # What Records answers as plain data for JSON, units in the names. docs/api.md describes each.
      module Answers
        module_function

        def timeline(timeline, jobs)
          { property: timeline.property.name, states: timeline.states, rows: timeline.rows.map { |one| row(one) },
            jobs: jobs.map { |job| { **job.values.slice(:kind, :done, :total), waiting: job.waiting? } } }
        end

        def table(table, rows)
          told = rows.map { |row| { id: row.id, **table.columns.to_h { |one| [one.key.to_sym, cell(one, row)] } } }
          { total: table.total, rows: told }
        end

        # What a file and JSON hold of a row.
        def cell(column, row) = (column.raw || column.text).call(row)

        def row(row) = { on: row.on, kind: row.kind, text: row.text, patch: row.code }

        # A report as its page shows it; drawings are left out.
        def report(report)
          { title: report.title, subtitle: report.subtitle, parts: report.parts.map { |part| spoken(part.to_h) } }
        end

        def land_plan(plan)
          { id: plan.id, version: plan.version, made_on: plan.made_on, made_by: plan.made_by, status: plan.status,
            figures: plan.sums }
        end

        def bundle(arrival, board)
          { id: arrival.id, filename: arrival.filename, status: arrival.status, told: arrival.told,
            properties: board&.properties, counts: board&.merge&.counts,
            both: board&.conflicts&.map do |line|
              { id: line.gid, table: line.table.name, apart: board.merge.apart(line) }
            end }
        end

        def spoken(part) = part.merge("blocks" => part["blocks"].map { |block| block.except("svg") })

        def amended(desk)
          record, columns = desk.record, AmendDesk::SAID.keys
          versions = record.amendments.reverse.map do |one|
            { act: one.act, person: one.person, reason: one.reason, at: one.created_at,
              was: one.values_before.slice(*columns) }
          end
          { kind: desk.kind, id: record.id, taken_back: record.taken_back?, version: desk.version,
            values: record.values.slice(*columns), versions: }
        end
      end
    end
  end
end
