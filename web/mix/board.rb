# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      # What the room shows beside a mix that is for no patch: what stands on the shelf, what runs out, which records of
      # herbicide lack something.
      class Board
        SHOWN = 6 # products; those with a warning go first

        def initialize(property, today)
          @property, @today = property, today
        end

        # [Shelf::Row].
        def products = shelf.sort_by.with_index { |row, n| [row.warnings.any? ? 0 : 1, n] }.first(SHOWN)
        def more = [shelf.size - SHOWN, 0].max

        # [Store::HerbicideRecords::Row], the one that is due first in front; nil where no rule is kept.
        def records
          return unless @property.record_rule

          @records ||= Store::HerbicideRecords.new(@property).incomplete(@today)
        end

        private

        def shelf = @shelf ||= Shelf.new(@property, @today).rows
      end
    end
  end
end
