# frozen_string_literal: true

module Thistle
  module Store
    # A patch's records as core reads them, and the state and visits that follow from them.
    module PatchHistory
      SHOWING = %i[emerging leaf budding flower green_seed].freeze # phases in which what lives is up
      SHOWS_WITHIN = 14 # days by which a year, or one's own ground, may differ (memory)

      # Its records as core reads them.
      def story
        history.map do |on, kind, record|
          Core::Recheck::Story::Record.new(kind:, on:, id: record.id, **told(kind, record))
        end
      end

      # The story so far, as the state machine reads it.
      def life
        Core::Recheck::PatchLife.new(story, threshold: property.closes_below,
                                            seed_bank_years: years_of(:seed_bank_years),
                                            fragment_years: years_of(:fragment_years))
      end

      # Whether anything of it still lives (Core::Recheck::Presence).
      def presence
        life.presence(seed_years: years_of(:seed_bank_years), piece_years: years_of(:fragment_years),
                      latitude: property.latitude)
      end

      # Years that its seed or its pieces are given, as the property counts them; nil for none.
      def years_of(what) = plant&.public_send(what)&.fetch(property.closes_after)

      # [[date, :observation, :treatment or :check, record]] of this ground: its own, what it was parted from
      # until then, and what it took in; before: a time, for what was written down and taken in by then. A part that
      # came back to its whole is in it once.
      def history(before: nil)
        whole = parent ? parent.history(before: created_at).select { |on, _, _| on <= parted_on } : []
        taken_in = absorbed.select { |one| before.nil? || one.deleted_at <= before }.flat_map(&:history)
        all = (whole + own_records + taken_in).uniq { |_, kind, record| [kind, record.id] }
        all = all.select { |_, _, record| record.created_at <= before } if before
        all.sort_by { |on, kind, record| [on, KINDS_IN_ORDER.index(kind), record.id] }
      end

      # The day until which a label keeps people out of it (:closed_until) or planting off it (:unplanted_until), from a
      # day on; nil where none does.
      def kept_by_label(what, today)
        kind = { closed_until: :closed, unplanted_until: :unplanted }.fetch(what)
        ClosedGround.on(self, today).select { |one| one.kind == kind }.map(&:until).max
      end

      # The method that was tried twice running and left more alive each time than the handbook's worst; nil where none.
      def failed_twice
        told = treatments.filter_map { |work| (look = last_look(work)) && [work, look.control] }.last(2)
        return unless told.size == 2 && told.map { |work, _| work.method_key }.uniq.one?

        planned = told.last.first.removal.kill(plant)
        told.last.first.removal if told.all? { |_, control| control.percent < planned["low"] }
      end

      # The last look at a treatment whose stems were counted.
      def last_look(work)
        checks.select { |check| check.treatment_id == work.id && !check.left_out && check.control }.max_by(&:checked_on)
      end

      # Does another patch of its plant bear seed so near that it sows into this one?
      def seeded_beside?
        return @seeded_beside if defined?(@seeded_beside)

        around = [west - BESIDE, south - BESIDE, east + BESIDE, north + BESIDE]
        near = property.live_patches.unordered.within(around).where(plant_key:, state: %w[standing regrowing])
        @seeded_beside = !near.exclude(id:).empty?
      end
      BESIDE = 0.0006 # degrees, about 60 m (memory)

      KINDS_IN_ORDER = %i[observation check treatment].freeze

      # Sets the state and the visits that the records say. Call it after any record is added, corrected or taken away.
      def follow_records
        reload
        was, now = state, life.state
        update(state: now, closed_on: now == "closed" ? checks.last&.checked_on : nil, **standing_columns)
        FollowUps.settle(self)
        Overlaps.settle(property, [id]) if [was, now].one?("closed")
      end

      # Itself, what was parted from it, and what took it in: whose history a record of this patch belongs to.
      def kin
        found = [self]
        found.each do |patch|
          related = self.class.where(parent_id: patch.id).or(id: patch.merged_into_id)
          found.concat(related.exclude(id: found.map(&:id)).all)
        end
        found.reject(&:deleted_at)
      end

      # Would anything that lives have been up on a day, or within a fortnight of it? Where the plant is not known, yes.
      # By the year's weather alone: a state does not turn because someone saw a leaf.
      def shows?(date)
        return true unless plant

        PatchHistory.up?(property.plain_calendar(plant, property.today), date)
      end

      # Is anything up on a day, or within a fortnight of it, by a plant's calendar?
      def self.up?(calendar, date)
        [date - SHOWS_WITHIN, date, date + SHOWS_WITHIN].any? { |day| calendar.phases_on(day).intersect?(SHOWING) }
      end

      private

      def own_records
        [*observations.map { |seen| [seen.seen_on, :observation, seen] },
         *treatments.map { |work| [work.done_on, :treatment, work] },
         *checks.map { |check| [check.checked_on, :check, check] }]
      end

      def told(kind, record)
        case kind
        when :observation then { settled: record.settled }
        when :treatment then { method: record.method_key, removes: record.removal.removes?,
                               seed_fall: record.seed_fall }
        when :check then { live: record.live?, note: record.again, shows: record.live? || shows?(record.checked_on),
                           detects: record.detects(gross_m2), seed_fall: record.seed_fall }
        end
      end
    end
  end
end
