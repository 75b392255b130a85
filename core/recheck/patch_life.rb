# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # The one place that says which record moves a patch to which state:
      # reported -> standing -> hit -> regrowing or quiet -> closed.
      class PatchLife
        STATES = %w[reported standing hit regrowing quiet closed].freeze
        APART = 14 # days between two clean looks that count as two (memory)

        # records: [Story::Record], any order. Years for which seed that fell, or pieces that stayed, can still come up,
        # or nil.
        def initialize(records, threshold: Alive::CLOSED_BELOW, seed_bank_years: nil, fragment_years: nil)
          @records = Story.in_order(records)
          @threshold, @seed_bank_years, @fragment_years = threshold, seed_bank_years || 0, fragment_years || 0
        end

        # The state that the records leave it in: reported, standing, hit, regrowing, quiet or closed.
        def state
          @records.each_index.reduce("reported") { |state, n| move(state, n) }
        end

        # [[day, state]] at each change, from the first record on.
        def states
          state = nil
          steps = @records.each_index.map { |n| [@records[n].on, state = move(state || "reported", n)] }
          steps.chunk_while { |(_, a), (_, b)| a == b }.map(&:first)
        end

        # Clean looks that count since the last live sight or treatment.
        def clean_checks = clean_by(@records.size - 1).size

        # What is known of it as Presence reads it, with whose years count.
        def presence(seed_years: nil, piece_years: nil, latitude: 0.0)
          n = @records.size - 1
          looks = clean_by(n).map { |look| Presence::Look.new(on: look.on, detects: look.detects || Alive::DETECTION) }
          fell, lived = n.negative? ? [nil, nil] : [last_fall(n), @records[last_live(n) || 0].on]
          Presence.new(looks:, fell_on: fell, lived_on: lived, seed_years:, piece_years:, latitude:)
        end

        private

        def move(state, n)
          record = @records[n]
          case record.kind
          when :observation then seen(state, record)
          when :treatment then record.removes ? "hit" : state
          when :check then after_check(state, n)
          end
        end

        # What was over is open again when it is seen.
        def seen(state, record)
          return "regrowing" if state == "closed"

          record.settled && state == "reported" ? "standing" : state
        end

        # A look that could show nothing, since nothing would have been up, says nothing.
        def after_check(state, n)
          return state if %w[reported standing].include?(state)
          return "regrowing" if @records[n].live
          return state if @records[n].shows == false

          done?(n) ? "closed" : "quiet"
        end

        # Closed: enough clean looks in a row by this record, seed spent since it last fell, pieces since the last live
        # plant.
        def done?(n)
          on = @records[n].on
          alive_by(n) < @threshold && on >= last_fall(n) >> (12 * @seed_bank_years).round &&
            on >= @records[last_live(n) || 0].on >> (12 * @fragment_years).round
        end

        def alive_by(n) = Alive.after(clean_by(n).map { |look| look.detects || Alive::DETECTION })

        # When seed last fell, by record n: as someone said; a live plant of which nobody said counts as if it had.
        def last_fall(n)
          fell = @records.first(n + 1).select do |record|
            record.seed_fall ? SeedFall::FELL.include?(record.seed_fall) : lives?(record)
          end
          (fell.last || @records.first).on
        end

        # Clean looks that count, by record n: after the last live plant, when something would have shown, each at least
        # a fortnight after the one before.
        def clean_by(n)
          looks = @records[((last_live(n) ||
                             -1) + 1)..n].select { |record| record.kind == :check && record.shows != false }
          looks.each_with_object([]) do |look, counted|
            counted << look if counted.empty? || look.on - counted.last.on >= APART
          end
        end

        # The last record by n that is no clean look.
        def last_live(n) = n.downto(0).find { |at| lives?(@records[at]) }
        def lives?(record) = record.kind != :check || record.live
      end
    end
  end
end
