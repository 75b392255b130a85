# frozen_string_literal: true

module Thistle
  module Store
    # Notes in the trail every row that somebody adds, changes, takes back or brings back: by triggers of each of this
    # program's own connections (TEMP), so that nothing here that writes can forget it, and the file stays plain for
    # others. `acting()` is the account that asks (Acting); while nobody does (a start, a copy put back), nothing is
    # noted.
    module TrailNotes
      OWN, OF_PATCH, NONE = "ROW.property_id", "(SELECT property_id FROM patches WHERE id = ROW.patch_id)", "NULL"
      BY = ->(table, key, column = "property_id") { "(SELECT #{column} FROM #{table} WHERE id = ROW.#{key})" }
      PATCH_OF = ->(inner) { "(SELECT property_id FROM patches WHERE id = #{inner})" }

      # {table => its property, in SQL over its row}
      WHOSE = {
        **%i[arrivals changes cleanings gather_places land_plans layers local_rules memberships guest_links comments
             permissions patches products_in_use reports rule_settings searches season_plans sightings
             weather_files work_days zones].to_h { |table| [table, OWN] },
        **%i[checks courses observations pictures planting_plans plantings site_sheets tasks treatments trials
             waterings].to_h { |table| [table, OF_PATCH] },
        **%i[accounts amendments bundle_arrivals calibrations groups kept_searches kit_items label_versions people
             phones products seed_lots].to_h { |table| [table, NONE] },
        properties: "ROW.id", photos: BY["reports", "report_id"], taps: BY["work_days", "work_day_id"],
        course_steps: PATCH_OF[BY["courses", "course_id", "patch_id"]],
        take_counts: PATCH_OF[BY["plantings", "planting_id", "patch_id"]],
        trial_stems: PATCH_OF[BY["trials", "trial_id", "patch_id"]]
      }.freeze
      # What follows from records by itself is nobody's act.
      DERIVED = {
        patches: %w[state standing alive young first_counts parted_share zones_near water_m outline west east south
                    north lock_version updated_at closed_on slope_deg aspect_deg place],
        accounts: %w[seen_id weekly], phones: %w[seen_at told], properties: %w[season_version last_number],
        work_days: %w[answer lock_version updated_at],
        season_plans: %w[answer status fault], land_plans: %w[status fault said figures],
        arrivals: %w[status report done total], tasks: %w[due_on reason source since_on happened_on]
      }.freeze
      GONE = %w[deleted_at taken_back_at ended_at dropped_at].freeze
      BY_HAND = { tasks: " AND NEW.person IS NOT NULL" }.freeze # visits that follow from a record are that record's
      private_constant :BY, :PATCH_OF

      class << self
        # Over a connection of SQLite's own kind, to a file that is up to date; another has no trail yet.
        def on(raw)
          raw.create_function("acting", 0) { |answer| answer.result = Acting.account_id }
          return if raw.get_first_value("SELECT 1 FROM sqlite_master WHERE name = 'trail'").nil?

          raw.execute_batch(WHOSE.map { |table, whose| of(table, whose, columns(raw, table)) }.join + only_growing)
        end

        private

        def columns(raw, table) = raw.execute("SELECT name FROM pragma_table_info('#{table}')").flatten

        def of(table, whose, columns)
          told = columns - ["id"] - DERIVED.fetch(table, [])
          put = trigger(table, "INSERT", BY_HAND[table], note("'added'", table, "NEW", whose))
          changed = trigger(table, "UPDATE OF #{told.join(", ")}", nil, note(act(columns), table, "NEW", whose))
          gone = trigger(table, "DELETE", nil, note("'removed'", table, "OLD", whose)) unless table == :tasks
          [put, changed, gone].join
        end

        def trigger(table, event, besides, note)
          "CREATE TEMP TRIGGER trail_#{table}_#{event[/\w+/].downcase} AFTER #{event} ON main.#{table} " \
            "WHEN acting() IS NOT NULL#{besides} BEGIN #{note}; END;\n"
        end

        def note(act, table, row, whose)
          "INSERT INTO trail (at, account_id, act, kind, row_id, property_id) VALUES " \
            "(strftime('%Y-%m-%d %H:%M:%f', 'now'), acting(), #{act}, '#{table}', #{row}.id, #{whose.gsub("ROW", row)})"
        end

        # What an update does to a row that can be taken back.
        def act(columns)
          back = GONE.find { |name| columns.include?(name) } or return "'changed'"
          "CASE WHEN OLD.#{back} IS NULL AND NEW.#{back} IS NOT NULL THEN 'took back' " \
            "WHEN OLD.#{back} IS NOT NULL AND NEW.#{back} IS NULL THEN 'brought back' ELSE 'changed' END"
        end

        def only_growing
          %w[DELETE UPDATE].map do |verb|
            "CREATE TEMP TRIGGER trail_kept_#{verb.downcase} BEFORE #{verb} ON main.trail " \
              "WHEN acting() IS NOT NULL BEGIN SELECT RAISE(ABORT, 'the trail only grows'); END;\n"
          end.join
        end
      end
    end
  end
end
