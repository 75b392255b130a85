# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      # What the survey room answers as plain data for JSON, units in the names. docs/api.md describes each.
      module Answers
        AMOUNTS = %i[cover_class cover_percent plants stems stem_size density_m2 height_cm stage footing aim].freeze
        ROWS = 5000 # of a file that comes in

        module_function

        # Records and all; a list of patches asks for Patch.for_answers first, so that each costs no question of its
        # own.
        def patch(patch)
          { **identity(patch), **size(patch), **place(patch), lock_version: patch.lock_version, **records(patch) }
        end

        def records(patch)
          { treatments: patch.treatments.map { |one| Work::Answers.treatment(one) },
            checks: patch.checks.map { |one| Recheck::Answers.check(one) },
            tasks: patch.open_tasks.map { |one| Recheck::Answers.task(one) } }
        end

        def identity(patch)
          { id: patch.id, code: patch.code, plant: patch.plant_key, state: patch.state, seen_on: patch.seen_on,
            geometry: JSON.parse(patch.geometry) }
        end

        def size(patch)
          infested, how = patch.infested
          { gross_m2: patch.gross_m2&.round(2), length_m: patch.length_m&.round(2), infested_m2: infested&.round(2),
            infested_is: how, **patch.values.slice(*AMOUNTS), stems_by_size: patch.amount.stems,
            stands: stands(patch), parted_from: patch.parent&.code,
            versions: patch.versions.map { |one| version(one) } }
        end

        # What stands there today by the records, and whose word that is.
        def stands(patch)
          there = patch.history.there(patch.property.today) or return
          kind, id = there.state.from
          { **there_of(there), since: there.state.since, by: kind || "mapped", record: id,
                               worked_on: there.state.worked_on }
        end

        def there_of(there) = { **there.to_h.slice(:plants, :stems, :seedlings), estimated: there.estimated }

        # What happened on a ground, and what of it holds; nothing where no place is said.
        def ground(desk)
          return { errors: desk.form.errors } unless desk.history

          { place: desk.name, closed: desk.closed.map { |one| { kind: one.kind, until: one.until } },
            stays_in_soil: desk.waits.map { |one| { kind: one.kind, from: one.from, to: one.to } },
            standing: desk.standing.map { |one, there| { patch: one.id, plant: one.plant_key, **there_of(there) } },
            sprayed: desk.sprayed.map { |work| { treatment: work.id, on: work.done_on, patch: work.patch_id } },
            planted: desk.plantings.map { |one| { planting: one.id, on: one.done_on, young: desk.young?(one) } },
            records: desk.history.records.map { |on, kind, one| { on:, kind:, id: one.id, patch: one.patch_id } } }
        end

        def version(one)
          { from: one.from, to: one.to, gross_m2: one.gross_m2&.round(2), infested_m2: one.infested_m2&.round(2) }
        end

        def place(patch)
          { water_m: patch.water_m&.round(1), slope_degrees: patch.slope_deg&.round(1),
            aspect_degrees: patch.aspect_deg&.round, zones: patch.zones_in_reach&.map(&:to_h) || [] }
        end

        def zone(zone)
          { id: zone.id, kind: zone.kind, name: zone.name, keep_m: zone.distance_kept, geometry: zone.shape.published }
        end

        def layer(layer)
          { id: layer.id, kind: layer.kind, name: layer.name, shown: layer.shown,
            **layer.details.transform_keys(&:to_sym) }
        end

        def arrival(arrival)
          rows = arrival.arrival_rows_dataset.limit(ROWS)
          { filename: arrival.filename, format: arrival.format, status: arrival.status,
            undone: !arrival.undone_at.nil?, total: arrival.total, counts: arrival.counts, columns: arrival.columns,
            rows: rows.map { |row| row.values.slice(:row, :name, :verdict, :reason, :patch_id) } }
        end

        def arrival_row(desk)
          row = desk.row
          { **row.values.slice(:id, :row, :verdict, :reason), cells: row.cells, place: desk.place,
                                                              read: row.cells_read }
        end

        def totals(totals, today)
          { whole: sums(totals.whole), by_plant: totals.by_plant.map { |row| sums(row) },
            by_state: totals.by_state.map { |row| sums(row) }, by_zone: totals.by_zone.map { |row| sums(row) },
            by_year: totals.by_year(today).map { |row| sums(row) } }
        end

        def sums(row) = row.to_h.transform_values { |value| value.is_a?(Float) ? value.round(2) : value }

        def walk(walk)
          track = walk.track
          { from: walk.from, fixes_kept: track.fixes.size, fixes_dropped: track.dropped, notes: track.notes,
            closed: track.closed?, length_m: track.length.round(1), accuracy_m: track.accuracy.round(1),
            area_m2: walk.area&.round(1), area_standard_error_m2: walk.error&.round(1),
            geometry: walk.shape.published }
        end

        def searches(desk)
          { metres: desk.metres, start: desk.boundary && desk.start, length_m: desk.route&.length_m&.round,
            stops: desk.route&.stops&.map { |one| stop(one) }, searches: desk.searches.map { |one| search(one) },
            absent: desk.absences.transform_values(&:searched_on) }
        end

        def stop(stop)
          { longitude: stop.place[0].round(6), latitude: stop.place[1].round(6),
            near: stop.reasons.map { |what, metres| { what:, distance_m: metres.round } },
            last_seen: stop.last_seen, leg_m: stop.leg_m.round }
        end

        def search(search)
          { id: search.id, searched_on: search.searched_on, people: search.people, sight_m: search.sight_m,
            length_m: search.length_m&.round, area_m2: search.area_m2.round, plants: search.plants }
        end
      end
    end
  end
end
