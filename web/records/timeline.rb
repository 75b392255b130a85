# frozen_string_literal: true

module Thistle
  module Web
    module Records
      # Everything recorded on a property, newest first, a page at a time.
      class Timeline
        # record: the address at which it is corrected; nil for what is not corrected so.
        Row = Core::Value.define(:on, :kind, :patch_id, :code, :text, :record)
        SHOWN = 80
        KINDS = { Store::Treatment => [:done_on, "work"], Store::Check => [:checked_on, "check"],
                  Store::Observation => [:seen_on, "seen"],
                  Store::Course => [:chosen_on, "course"] }.freeze

        attr_reader :property

        # The day before which the next page goes on; nil on the last.
        attr_reader :more

        # before: only what is older than this day, for the pages after the first.
        def initialize(property, before: nil)
          @property, @before = property, before
        end

        # The newest; a day is never parted between pages.
        def rows
          found = KINDS.flat_map { |model, (date, kind)| of(model, date, kind) }
          @rows ||= whole_days(found.sort_by { |row| [row.on, row.kind] }.reverse)
        end

        # {state => number of patches}
        def states = @states ||= @property.live_patches.group_and_count(:state).unordered.as_hash(:state, :count)

        private

        def whole_days(found)
          return found if found.size <= SHOWN

          last = found[SHOWN].on
          shown = found.take_while { |row| row.on > last }
          shown = found.take_while { |row| row.on >= last } if shown.empty? # one day with more than a page
          @more = shown.last.on
          shown
        end

        def of(model, date, kind)
          day = Sequel[model.table_name][date]
          records = records(model).reverse(day, Sequel[model.table_name][:id]).limit(SHOWN + 1)
          records = records.where(Sequel[day] < @before) if @before
          records.map do |record|
            Row.new(on: record[date], kind:, patch_id: record[:stands_at], code: record[:code],
                    text: send("said_#{kind}", record),
                    record: record.respond_to?(:amend_address) ? record.amend_address : nil)
          end
        end

        # Those that count, of this property: crossed, so that SQLite walks them by day and looks each one's patch up. A
        # record of a patch that was merged into another stands under that one, so that none is lost.
        def records(model)
          table, patch, into = Sequel[model.table_name], Sequel[:p], Sequel[:into]
          found = model.cross_join(Sequel[:patches].as(:p))
                       .where(patch[:id] => table[:patch_id], patch[:property_id] => @property.id)
                       .left_join(:patches, { id: patch[:merged_into_id] }, table_alias: :into)
                       .where(Sequel.|({ patch[:deleted_at] => nil }, Sequel.~(patch[:merged_into_id] => nil)))
                       .select_all(model.table_name)
                       .select_append(Sequel.function(:coalesce, into[:code], patch[:code]).as(:code))
                       .select_append(Sequel.function(:coalesce, into[:id], patch[:id]).as(:stands_at))
          model.columns.include?(:deleted_at) ? found.where(table[:deleted_at] => nil) : found
        end

        def said_work(work)
          told = { plants: work.plants_done, stems: work.stems_done, buckets: work.buckets }.compact
          counted = told.map { |what, number| "#{number} #{what}" }
          amount = counted.any? ? counted.join(", ") : @property.measures.area(work.area_m2)
          "#{work.removal.name}: #{amount}, #{Web::Words.count(work.crew_size, "person", "people")}, " \
            "#{work.hours.to_s.delete_suffix(".0")} h"
        end

        def said_check(check) = "Check: #{Words.found_said(check)}"

        def said_seen(seen)
          "#{seen.plant_key ? Core::Knowledge.shipped.plant(seen.plant_key).name : "unknown plant"}, " \
            "#{seen.settled ? "settled" : "not settled"}"
        end

        def said_course(course)
          advised = ". Advised was #{course.advised.name.downcase}: #{course.reason}" if course.otherwise?
          "On a course: #{course.removal.name.downcase}, #{course.person}#{advised}"
        end
      end
    end
  end
end
