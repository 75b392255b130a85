# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # The answer for one method: :go, :wait (until a date) or :no, with reasons, what it usually kills (percent),
      # what it takes (Effort), and until when it is open.
      # again: where it is held down, the day on which it is due again.
      # named: does the plant's own file name the method, or does it suit by habit alone?
      Verdict = Value.define(:removal, :kind, :until, :reasons, :kill, :effort, :plant_note, :closes, :named, :again) do
        # Crew hours for one pass, years and crew hours until it is quiet; nil where it never is or the amount is not
        # known.
        def hours = effort.hours
        def years_to_quiet = effort.years_to_quiet
        def hours_to_quiet = effort.hours_to_quiet
        def cost_to_quiet = effort.cost_to_quiet
        # What finishes sooner comes before: see Effort#order.
        def order = effort.order
        def go? = kind == :go
        def wait? = kind == :wait
        def no? = kind == :no
        def ask? = kind == :ask
        # Not known for this plant: its figures are those of the method alone, and are not said of the plant.
        def not_known? = ask? && reasons.any? { |reason| reason.rule == :not_known }
        def possible? = go? || wait?
        # The reasons that made the verdict what it is.
        def deciding = reasons.select { |reason| reason.kind == kind }
        # The strongest for and against it.
        def for = reasons.find { |reason| reason.kind == :go }
        def against = reasons.find(&:against?)
      end

      # What a crew on the ground may know better.
      class Verdict
        ARGUABLE = %i[fit_hours dry_soil saturated_soil barrow_ground].freeze

        # Does nothing but the day's own weather or soil stand against it?
        def arguable?
          against = reasons.select(&:against?)
          wait? && removal.judged_on_the_ground? && against.all? { |reason| ARGUABLE.include?(reason.rule) }
        end
      end
    end
  end
end
