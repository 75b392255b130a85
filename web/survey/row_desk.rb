# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      # One row of a file while it is put right: its cells by number, its place as text.
      class RowDesk
        MOST = 2000 # letters of a cell

        attr_reader :row, :errors

        def initialize(row, params)
          @row, @params, @errors = row, params, {}
        end

        # [[heading, text now, text as read or nil]]
        def cells
          read = row.cells_read
          headings.map { |heading| [heading, row.cells[heading].to_s, (read[heading].to_s if row.put_right?)] }
        end

        # "38.00045, -91.39943"; what was typed where it was not understood.
        def place = @params["place"] || row.point&.reverse&.join(", ")

        # Keeps what was typed; false with errors where its place is none.
        def keep
          place = typed_place
          return false if errors.any?

          row.put_right(typed_cells, place)
          true
        end

        private

        # Those of its file, and those that only this row has.
        def headings = row.arrival.columns.keys | row.cells.keys

        def typed_cells
          typed = @params["cell"].is_a?(Hash) ? @params["cell"] : {}
          headings.each_with_index.filter_map do |heading, n|
            text = typed[n.to_s]
            [heading, text.strip[0, MOST]] if text && text != row.cells[heading].to_s
          end.to_h
        end

        # Another place than it has; nil for the same, and for none.
        def typed_place
          text = @params["place"].to_s.strip
          return if text.empty? || !row.placeable? || text == row.point&.reverse&.join(", ")

          Core::Survey::Position.read(text) || ((errors[:place] = "is none that is understood") && nil)
        end
      end
    end
  end
end
