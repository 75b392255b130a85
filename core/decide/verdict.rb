# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # The answer for one method: :go, :wait (until a date) or :no, with reasons, what it usually kills (percent),
      # crew hours for the patch, years until quiet, and where the material goes.
      Verdict = Value.define(:removal, :kind, :until, :reasons, :kill, :hours, :years_to_quiet, :plant_note, :closes) do
        # Crew hours until it is quiet, all passes together; nil where it never is or the amount is not known.
        def hours_to_quiet = hours && years_to_quiet && (hours * years_to_quiet)
        def go? = kind == :go
        def wait? = kind == :wait
        def no? = kind == :no
        # The reasons that made the verdict what it is.
        def deciding = reasons.select { |reason| reason.kind == kind }
      end
    end
  end
end
