# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # The records of a patch in the order in which they happened, whatever order they were entered in. On one day:
      # what was seen, then a look at earlier work, then the work; a look on the day of the first work is a look at that
      # work.
      module Story
        # kind: :observation, :treatment or :check; id; on: its day; method: key of a treatment's; removes: does that
        # method take plants out? live: did a check find something alive? shows: could it have shown anything then?
        # settled: is an observation's name certain? detects: the chance that a look would have seen what lives, nil
        # where nobody said how it was searched. seed_fall: a key of SeedFall::ANSWERS, nil where nobody said. note:
        # what is alive, in words.
        Record = Value.define(:kind, :id, :on, :method, :removes, :live, :shows, :detects, :settled, :seed_fall, :note)

        module_function

        # [Record] in their order.
        def in_order(records)
          first = records.select { |record| record.kind == :treatment && record.removes }.map(&:on).min
          records.each_with_index.sort_by { |record, n| [record.on, rank(record, first), record.id || n] }.map(&:first)
        end

        # What comes later on the same day counts more: of two looks, the one that found something alive.
        def rank(record, first)
          case record.kind
          when :observation then 0
          when :treatment then 3
          else (record.on == first ? 4 : 1) + (record.live ? 1 : 0)
          end
        end
        private_class_method :rank
      end
    end
  end
end
