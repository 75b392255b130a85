# frozen_string_literal: true

module Thistle
  module Store
    # A patch's records as core reads them.
    module PatchStory
      SHOWING = %i[emerging leaf budding flower green_seed].freeze # phases in which what lives is up
      SHOWS_WITHIN = 14 # days by which a year, or one's own ground, may differ (memory)

      # Its records as core reads them.
      def story
        history.records.map do |on, kind, record|
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

      # What happened on its ground, whoever's it was (GroundHistory).
      def history = @history ||= GroundHistory.of(self)

      # [[date, :observation, :treatment or :check, record]] that were written down of it alone.
      def own_records
        [*observations.map { |seen| [seen.seen_on, :observation, seen] },
         *treatments.map { |work| [work.done_on, :treatment, work] },
         *checks.map { |check| [check.checked_on, :check, check] }]
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

      # Would anything that lives have been up on a day, or within a fortnight of it? Where the plant is not known, yes.
      # By the year's weather alone: a state does not turn because someone saw a leaf.
      def shows?(date)
        return true unless plant

        PatchStory.up?(property.plain_calendar(plant, property.today), date)
      end

      # Is anything up on a day, or within a fortnight of it, by a plant's calendar?
      def self.up?(calendar, date)
        [date - SHOWS_WITHIN, date, date + SHOWS_WITHIN].any? { |day| calendar.phases_on(day).intersect?(SHOWING) }
      end

      # What was read of its ground says nothing any more.
      def forget = @history = nil

      private

      def _refresh(*)
        forget
        super
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
