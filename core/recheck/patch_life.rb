# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # The one place that says which record moves a patch to which state:
      # reported -> standing -> hit -> regrowing or quiet -> closed.
      class PatchLife
        STATES = %w[reported standing hit regrowing quiet closed].freeze
        Event = Value.define(:kind, :on, :live, :removes, :settled)

        # events: [Event] of kind :observation (settled), :treatment (removes) or :check (live), any order.
        # seed_bank_until: the last year in which its seed can still come up, or nil.
        def initialize(events, threshold: Alive::CLOSED_BELOW, seed_bank_years: nil)
          @events = events.each_with_index.sort_by { |event, n| [event.on, n] }.map(&:first)
          @threshold, @seed_bank_years = threshold, seed_bank_years || 0
        end

        def state
          @events.reduce("reported") { |state, event| move(state, event) }
        end

        # Clean checks since the last live sight or treatment.
        def clean_checks
          @events.reverse.take_while { |event| event.kind == :check && !event.live }.size
        end

        def chance_alive = Alive.chance(clean_checks)

        private

        def move(state, event)
          case event.kind
          when :observation then event.settled && state == "reported" ? "standing" : state
          when :treatment then event.removes ? "hit" : state
          when :check then after_check(state, event)
          end
        end

        def after_check(state, event)
          return state if %w[reported standing].include?(state)
          return "regrowing" if event.live

          done?(event) ? "closed" : "quiet"
        end

        # Closed: enough clean checks in a row by this event, and the seed bank spent since the last live plant.
        def done?(event)
          past = @events.take(@events.index(event) + 1)
          clean = past.reverse.take_while { |e| e.kind == :check && !e.live }
          last_live = past[-clean.size - 1]&.on || past.first.on
          Alive.chance(clean.size) < @threshold && event.on >= last_live >> (12 * @seed_bank_years)
        end
      end
    end
  end
end
