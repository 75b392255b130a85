# frozen_string_literal: true

module Thistle
  module Store
    # Reading: what stands of a patch: its records as Core::Recheck::Standing reads them, and what they come to on a
    # day. GroundHistory answers with it.
    class PatchStanding
      extend Forwardable

      def_delegators :@patch, :plant, :parent, :parted_on, :parted_share, :absorbed, :treatments, :infested, :gross_m2,
                     :stem_size, :stems_by_size, :own_records

      State = Core::Recheck::Standing::State
      EVENTS = { observation: :seen_event, check: :looked_event, treatment: :worked_event }.freeze
      # What stands there, for people. plants, stems: whole numbers, nil where nobody counted; seedlings: and other
      # young ones, nil where nobody counted; share: of the area last told; state: State; grown: did it grow on since
      # the count?
      There = Core::Value.define(:plants, :stems, :seedlings, :share, :state, :grown) do
        # Is it more than a count, since work, growth or a share of the ground came between?
        def estimated = !state.worked_on.nil? || state.shared || grown || false
        def counted? = !number.nil?
        def only_seedlings? = number&.zero? && seedlings&.positive?
        # The number that counts, plants before stems.
        def number = plants || stems
      end

      def initialize(patch)
        @patch = patch
      end

      # What is worked out is said to two figures.
      def self.rounded(number) = number < 100 ? number : number.round(1 - Math.log10(number).floor)

      # What stands there on a day (There); nil without a plant.
      def there(today)
        return unless plant

        (@there ||= {})[today] ||= begin
          counted = stood_by_records
          state = model.on(counted, today)
          grown = model.seasons(state.since, today).positive? || state.whole != counted.whole
          say = ->(number) { state.worked_on || state.shared || grown ? PatchStanding.rounded(number) : number }
          plants, stems = in_units(say[state.whole]) if state.counted
          There.new(plants:, stems:, seedlings: (say[state.whole_young] if state.seeded), share: state.share, state:,
                    grown:)
        end
      end

      # How much of it there was when it was mapped, as Core::Decide::Facts has it.
      def as_mapped
        counts = counts_of_all
        { plants: counts["plants"], stems: counts["stems"], seedlings: nil, sizes: nil,
          area_m2: infested&.first || gross_m2, size: plant.woody? || plant.is?(:tussock) ? stem_size : "seedling" }
      end

      # What its columns should say: {column => value}.
      def columns
        return { standing: nil, alive: nil, young: nil } unless plant

        state = stand(Date.new(9999))
        { standing: JSON.generate(state.to_h), alive: (state.whole if state.counted),
          young: (state.whole_young if state.seeded) }
      end

      # The State that its records until a day leave it in; made_by: those that were written down by a time.
      def stand(until_day, made_by: nil)
        first = whole && parted_share ? parent_stood : mapped(most_done)
        model.after(stand_events(until_day, made_by), first:)
      end

      # Of a record of the ground that it was parted from, the share that is of this patch.
      def share_of(record) = parted_share && record.patch_id == @patch.parent_id ? parted_share : 1.0

      protected

      # As it was mapped; of a part, its share of the whole.
      def counts_of_all
        return counts_mapped unless whole && parted_share && counts_mapped.values.none?

        whole.counts_of_all.transform_values { |count| count && [(count * parted_share).round, 1].max }
      end

      def counts_mapped
        told = @patch.first_counts
        told ? JSON.parse(told) : { "plants" => @patch.plants, "stems" => @patch.stems }
      end

      # Stems where anybody counted them, else plants.
      def unit = @unit ||= unit_mapped || (whole ? whole.unit : unit_worked)

      private

      # The same of what it was parted from.
      def whole = @whole ||= parent && PatchStanding.new(parent)

      def model
        Core::Recheck::Standing.new(Core::Recheck::Stages.of(plant), m2: gross_m2, latitude: @patch.property.latitude)
      end

      # As the last of its records left it.
      def stood_by_records
        return mapped unless @patch.standing

        told = JSON.parse(@patch.standing, symbolize_names: true)
        days = %i[since worked_on on].to_h { |field| [field, told[field] && Date.iso8601(told[field])] }
        State.new(**told, **days)
      end

      # As it was mapped, or taken from its area where nobody counted; never less than work took on.
      def mapped(done = 0)
        counts = counts_mapped
        count = counts[unit.to_s] || counts.values.compact.first
        guess = (infested&.first || gross_m2).to_f * Core::Decide::Effort::PLANTS_PER_M2.fetch(plant.form, 0.5)
        model.begin_with([count || guess, done].max, @patch.seen_on, counted: !count.nil?)
      end

      def most_done = treatments.select { |work| work.removal.removes? }.filter_map { |work| done(work) }.max || 0

      # Part of the ground of its parent, as that stood on the day.
      def parent_stood
        event = Core::Recheck::Standing::Event.new(kind: :parted, on: parted_on, share: parted_share)
        model.after([event], first: whole.stand(parted_on, made_by: @patch.created_at))
      end

      def unit_mapped
        counts = counts_mapped
        return :stems if counts["stems"] || stems_by_size

        :plants if counts["plants"]
      end

      def unit_worked
        treatments.any?(&:stems_done) && treatments.none?(&:plants_done) ? :stems : :plants
      end

      # [plants, stems] of a number in its unit.
      def in_units(number)
        return [number, nil] if unit == :plants

        counts = counts_mapped
        each = counts["plants"] && counts["stems"]&.positive? ? counts["plants"].fdiv(counts["stems"]) : nil
        [each && (number * each).ceil, number]
      end

      # [Event] in order: of one day those before a change of its ground, then those after it.
      def stand_events(until_day, made_by)
        changes = [*partings, *joinings(made_by)]
        events = [*told_records, *changes].select do |at, event|
          event.on <= until_day && (made_by.nil? || at < made_by || (at == made_by && event.kind != :parted))
        end
        events.sort_by.with_index { |(at, event), n| [event.on, turn(at, event, changes), n] }.map(&:last)
      end

      # Changes of the ground on its day that were made before it.
      def turn(made_at, event, changes)
        same = changes.select { |_, change| change.on == event.on }
        made_at ? same.count { |at, _| at && at < made_at } : 0
      end

      # [[when it was written down, Event]] of its own records, in the order in which they happened.
      def told_records
        by_id = own_records.to_h { |_, kind, record| [[kind, record.id], record] }
        in_order = Core::Recheck::Story.in_order(own_records.map { |on, kind, record| story_record(on, kind, record) })
        in_order.filter_map do |told|
          record = by_id.fetch([told.kind, told.id])
          (event = send(EVENTS.fetch(told.kind), record)) && [record.created_at, event]
        end
      end

      def story_record(on, kind, record)
        Core::Recheck::Story::Record.new(kind:, on:, id: record.id,
                                         removes: kind == :treatment && record.removal.removes?,
                                         live: kind == :check && record.live?)
      end

      def partings
        Patch.where(parent_id: @patch.id).exclude(parted_share: nil).order(:id).map do |part|
          [part.created_at, event(:parted, part.parted_on, share: 1 - part.parted_share)]
        end
      end

      def joinings(made_by)
        taken_in = absorbed.select { |one| made_by.nil? || one.deleted_at <= made_by }
        taken_in.map do |one|
          [one.deleted_at, event(:joined, one.merged_on, state: one.history.standing.stand(one.merged_on))]
        end
      end

      def event(kind, on, **told) = Core::Recheck::Standing::Event.new(kind:, on:, **told)

      def seen_event(seen)
        return unless seen.amounts?

        sizes = seen.stems_by_size && JSON.parse(seen.stems_by_size).values.sum
        counts = { stems: seen.stems || sizes, plants: seen.plants }
        event(:seen, seen.on, from: ["observation", seen.id], plants: counts[unit] || counts.values.compact.first,
                              amounts: !(seen.infested_m2 || seen.cover_class || seen.cover_percent).nil?)
      end

      def looked_event(look)
        found = look.resprouts + look.missed + look.suckers
        wide = (look.cover_class || 0) > 1 && look.alive.zero? # something lives that nobody counted
        some = look.young.zero? && (look.seedlings_seen == "some" || wide)
        event(:looked, look.on, from: ["check", look.id], plants: wide ? nil : found, bearing: look.missed,
                                seedlings: some ? nil : look.young, amounts: !look.cover_class.nil?)
      end

      def worked_event(work)
        return unless work.removal.removes?

        event(:worked, work.on, from: ["treatment", work.id], done: done(work), share: part_worked(work),
                                kill: work.removal.kill(plant)["likely"] / 100.0,
                                fell: Core::Recheck::SeedFall::FELL.include?(work.seed_fall))
      end

      def done(work) = unit == :stems ? work.stems_done || work.plants_done : work.plants_done || work.stems_done

      # Of the ground, what was worked on where nobody counted.
      def part_worked(work)
        whole = (infested&.first || gross_m2).to_f
        work.area_m2 && whole.positive? ? [work.area_m2 / whole, 1.0].min : 1.0
      end
    end
  end
end
