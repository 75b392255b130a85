# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # The one place that says which record moves a patch to which state:
      # reported -> standing -> hit -> regrowing or quiet -> closed.
      class PatchLife
        STATES = %w[reported standing hit regrowing quiet closed].freeze
        APART = 14 # days between two clean looks that count as two (memory)

        # records: [Story::Record], any order. seed_bank_years: for which its seed can still come up, or nil.
        def initialize(records, threshold: Alive::CLOSED_BELOW, seed_bank_years: nil)
          @records = Story.in_order(records)
          @threshold, @seed_bank_years = threshold, seed_bank_years || 0
        end

        def state
          @records.each_index.reduce("reported") { |state, n| move(state, n) }
        end

        # Clean looks that count since the last live sight or treatment.
        def clean_checks = clean_by(@records.size - 1).size

        def chance_alive = Alive.chance(clean_checks)

        private

        def move(state, n)
          record = @records[n]
          case record.kind
          when :observation then record.settled && state == "reported" ? "standing" : state
          when :treatment then record.removes ? "hit" : state
          when :check then after_check(state, n)
          end
        end

        # A look that could show nothing, since nothing would have been up, says nothing.
        def after_check(state, n)
          return state if %w[reported standing].include?(state)
          return "regrowing" if @records[n].live
          return state if @records[n].shows == false

          done?(n) ? "closed" : "quiet"
        end

        # Closed: enough clean looks in a row by this record, and the seed bank spent since the last live plant.
        def done?(n)
          live = last_live(n)
          last = live ? @records[live].on : @records.first.on
          Alive.chance(clean_by(n).size) < @threshold && @records[n].on >= last >> (12 * @seed_bank_years)
        end

        # Clean looks that count, by record n: after the last live plant, when something would have shown, each at least a
        # fortnight after the one before.
        def clean_by(n)
          looks = @records[((last_live(n) || -1) + 1)..n].select { |record| record.kind == :check && record.shows != false }
          looks.each_with_object([]) { |look, counted| counted << look if counted.empty? || look.on - counted.last.on >= APART }
        end

        # The last record by n that is no clean look.
        def last_live(n) = n.downto(0).find { |at| @records[at].kind != :check || @records[at].live }
      end
    end
  end
end
