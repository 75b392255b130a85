# frozen_string_literal: true

module Thistle
  module Formats
    # Cells of a table that a spreadsheet would run as a formula go out behind an apostrophe, and come back without it.
    module Inert
      RUNS = /\A'*[=+\-@\t\r]/
      NUMBER = /\A[+-]?\d+([.,]\d+)?\z/

      module_function

      # A cell as it is written; what is no text, or a plain number, stays as it is.
      def write(cell) = cell.is_a?(String) && RUNS.match?(cell) && !NUMBER.match?(cell) ? "'#{cell}" : cell

      # A cell as it was before it was written.
      def read(cell) = cell.is_a?(String) && cell.start_with?("'") && RUNS.match?(cell) ? cell[1..] : cell
    end
  end
end
