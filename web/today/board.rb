# frozen_string_literal: true

module Thistle
  module Web
    module Today
      # Today over all properties: open tasks that are due, and the agenda of every open patch.
      class Board
        SOON = 7 # days ahead that count as due
        CLEAN_EVERY = 7 # days in seed season (common practice)
        YEAR, MONTH = 400, 31 # days ahead for what waits; for what opens and closes
        NAMED = 6 # patches of one line, by code
        DRAWN = 120
        REMOVED = Core::Knowledge.shipped.plants.values
                                 .select { |plant| plant.invasive? || plant.regions["invasive"] }.map(&:key).freeze
        SHOWN = 10 # rows under one heading; the rest are counted

        attr_reader :today

        def initialize(properties, today)
          @properties, @today = properties, today
          @moves = Store::Moves.new(properties, today)
        end

        # [Task] visits due within a week, oldest first; the first of them only. Where treatment is asked for on a patch
        # that wants work, its row in the agenda says so; on any other patch the visit stands here.
        def due = @due ||= visits.limit(SHOWN).all
        def due_count = @due_count ||= visits.count

        # Why a patch wants treating again, in the words of its last check; nil when it does not.
        def again(patch_id) = asked_again[patch_id]

        # Patches for the drawn map, those that want work first; a crowd is cut off at what a small map can show.
        def drawn(property)
          live = property.patches_dataset.live
          wanting = first_ids(live.wanting_work, DRAWN)
          rest = first_ids(live.exclude(state: Store::Patch::WANTING), DRAWN - wanting.size)
          Store::Patch.where(id: wanting + rest).select(:id, :code, :plant_key, :state, :geometry).all
        end

        # Of a heading: how many patches, and the first of them as [Agenda::Item].
        Listing = Struct.new(:total, :items)

        # {group => Listing}, those groups that hold any.
        def groups
          @groups ||= moves.items.group_by(&:group).to_h do |group, items|
            [group, Listing.new(items.sum { |item| moves.ids(item).size }, leading(group, items))]
          end
        end

        def count(group) = groups[group]&.total || 0

        # What the day is good for, over the work that open patches want.
        def conditions = @conditions ||= Season::ConditionsBoard.new(@properties, today, moves.wanted)

        # What opens and what closes in the coming month: [Store::Moves::Turn]; codes of the first patches of one.
        def turns = @turns ||= moves.turns(MONTH).first(SHOWN)

        def codes(turn)
          @codes ||= Store::Patch.where(id: turns.flat_map { |one| one.ids.first(NAMED) }).as_hash(:id, :code)
          @codes.values_at(*turn.ids.first(NAMED))
        end

        # What the season plans have for this week: [[property, item]].
        def planned
          plans = Store::SeasonPlan.current_of(@properties.map(&:id))
          @planned ||= @properties.flat_map do |property|
            (plans[property.id]&.this_week(today) || []).map { |item| [property, item] }
          end
        end

        # Open tasks that wait for an event which has not come, the likeliest first.
        def awaited
          @awaited ||= Store::Task.due(through: today + YEAR).where(here).where(happened_on: nil).exclude(event: nil)
                                  .where(Sequel[:due_on] > (today + SOON)).limit(SHOWN).all
        end

        # Records of herbicide that lack something by the rule that their property keeps, the one due first in front:
        # [[property, Store::HerbicideRecords::Row]].
        def herbicide_records
          @herbicide_records ||= @properties.select(&:record_rule).flat_map do |property|
            Store::HerbicideRecords.new(property).incomplete(today).map { |row| [property, row] }
          end.sort_by { |_, row| row.due_on }
        end

        # Young plantings that want water by the end of the forecast: [Store::WaterOwed::Owed].
        def thirsty = @thirsty ||= Store::WaterOwed.new(@properties, today).rows.first(SHOWN)

        # What is wrong with how the records are kept, in sentences: copies, the disk's room.
        def keeping = Store::Keeping.said

        # Work days of the coming week: [Work::DayBoard].
        def work_days
          @work_days ||= Store::WorkDay.live.where(held_on: today..(today + SOON), closed_at: nil)
                                       .where(property_id: @properties.map(&:id)).order(:held_on, :id).limit(SHOWN).all
                                       .map { |day| Work::DayBoard.new(day, today) }
        end

        # Ground that a label keeps people off today: [Store::ClosedGround::Entry], those that open last behind.
        def closed_ground
          @closed_ground ||= Store::ClosedGround.of(@properties.map(&:id), today).select { |one| one.kind == :closed }
                                                .first(SHOWN)
        end

        # Reports that no one has answered: new arrivals, and names that are not settled.
        def reports = @reports ||= Store::Report.where(answer_key: nil, **here).order(:seen_on).limit(SHOWN).all

        # Patches that nobody has named: to find out what they are is their work. How many, and the first of them.
        def nameless
          @nameless ||= Listing.new(unnamed.count, unnamed.order(:seen_on, :id).limit(SHOWN).for_agenda.all)
        end

        def unnamed = Store::Patch.wanting_work.where(plant_key: nil, property_id: @properties.map(&:id))

        # Properties on which seed is ripe now and nothing was cleaned for a week: {property => plants in seed}.
        def hygiene
          @hygiene ||= @properties.to_h { |property| [property, in_seed(property)] }
                                  .select { |property, plants| plants.any? && clean_due?(property) }
        end

        # How much there is to do, [number, unit] in the units of the patch's own property.
        def amount(patch)
          there = there(patch)
          Stands.stamp(there) || property(patch.property_id).measures.area(patch.facts(today).area_m2).split(" ", 2)
        end

        # What stands of a patch of a heading (Store::PatchStanding::There).
        def there(patch)
          patch.associations[:property] ||= property(patch.property_id)
          patch.history.there(today)
        end

        # What stands of it, where a record after its mapping says so: "1 stem and 25 seedlings by the check of 10 May".
        def stands(patch)
          there = there(patch)
          return unless Stands.amount(there) && (there.state.from || there.estimated)

          "#{Stands.amount(there)} #{Stands.source(there)}"
        end

        # A patch under a heading.
        def patch(id) = patches.fetch(id)

        # Nothing wants work?
        def idle? = moves.none? && nameless.total.zero?
        def property(id) = by_id.fetch(id)

        private

        attr_reader :moves

        # Ids alone, since the shapes are most of a row.
        def first_ids(patches, count) = count.positive? ? patches.order(:id).limit(count).select_map(:id) : []

        def visits
          covered = { Sequel[:tasks][:kind] => "treat", Sequel[:p][:state] => Store::Patch::WANTING,
                      Sequel[:p][:plant_key] => REMOVED }
          Store::Task.due(through: today + SOON).where(here).exclude(covered)
        end

        def here = { property_id: @properties.map(&:id) }
        def by_id = @by_id ||= @properties.to_h { |property| [property.id, property] }

        # The first patches of a heading: those that a look asks to treat again go before the rest, but for what is
        # closing.
        def leading(group, items)
          rows = items.chunk_while { |one, other| one.until == other.until }.lazy.flat_map do |same|
            same.flat_map { |item| each_of(item, moves.ids(item)) }.sort_by(&:id)
          end
          return rows.first(SHOWN) if group == :closing

          first = items.flat_map { |item| each_of(item, moves.ids(item).select { |id| again(id) }) }
                       .sort_by { |item| [item.until || Core::Decide::Agenda::FAR, item.id] }.first(SHOWN)
          (first + rows.reject { |item| again(item.id) }.first(SHOWN)).first(SHOWN)
        end

        def each_of(item, ids) = ids.map { |id| item.with(id:) }

        def asked_again
          @asked_again ||= Store::Task.undone.where(kind: "treat").where(Sequel[:due_on] <= today + SOON)
                                      .as_hash(:patch_id, :reason)
        end

        def patches
          @patches ||= Store::Patch.where(id: groups.values.flat_map { |listing| listing.items.map(&:id) })
                                   .for_agenda.eager(:treatments).as_hash(:id)
        end

        def clean_due?(property) = cleaned[property.id].nil? || today - cleaned[property.id] >= CLEAN_EVERY
        def cleaned = @cleaned ||= Store::Cleaning.last_days

        def in_seed(property)
          plants = moves.plants_on(property).map { |key| Core::Knowledge.shipped.plant(key) }.select(&:invasive?)
          plants.select do |plant|
            property.site(today).calendar(plant).phases_on(today).include?(:ripe_seed)
          end
        end
      end
    end
  end
end
