# frozen_string_literal: true

module Thistle
  module Web
    module Work
      # What was tapped on a day, patch by patch: how long, how many, what of it.
      class FieldBoard
        # patch; removal; spells: [[from, to or nil]] as Time; people: how many at it; plants, stems: counted, stems by
        # size too; seed, treated: the last that was said; open: began and has not ended.
        Card = Core::Value.define(:patch, :removal, :stop, :spells, :people, :plants, :stems, :sizes, :seed, :treated,
                                  :notes) do
          def open? = spells.any? && spells.last.last.nil?
          def begun? = spells.any?
          def since = spells.last&.first
          # Hours of each person.
          def hours = spells.sum { |from, to| to ? (to - from) / 3600.0 : 0.0 }
        end

        attr_reader :day_board

        def initialize(work_day, today)
          @day_board = DayBoard.new(work_day, today)
        end

        def work_day = day_board.work_day

        # [Card], in the order of the walk, then those that were begun besides.
        def cards
          @cards ||= (day_board.stops.map { |stop| [stop.patch, stop.removal, stop] } + others)
                     .map { |patch, removal, stop| card(patch, removal, stop) }
        end

        def card_of(patch_id) = cards.find { |card| card.patch.id == patch_id }

        # When an open spell likely ended: the last tap after it, or the day's end.
        def likely_end(card)
          later = of(card.patch.id).map(&:at).max
          last = clock.utc(work_day.held_on, *work_day.ends_at.split(":").map(&:to_i))
          later > card.since ? later : [last, card.since].compact.max
        end

        # [from, to] on the clock of the place, "09:15"; nil until it was begun, and where it went past midnight.
        def span(card)
          return unless card.begun?

          ended = card.open? ? likely_end(card) : card.spells.last.last
          from, to = [card.spells.first.first, ended].map { |at| clock.local(at) }
          [from, to].map { |at| at.strftime("%H:%M") } if from.to_date == to.to_date
        end

        private

        def clock = work_day.property.clock
        def taps = @taps ||= Store::Tap.live.where(work_day_id: work_day.id).order(:at, :id).all
        def of(patch_id) = taps.select { |tap| tap.patch_id == patch_id }

        # Patches that somebody began without a plan for them.
        def others
          ids = taps.filter_map(&:patch_id).uniq - day_board.stops.map { |stop| stop.patch.id }
          Store::Patch.where(id: ids).all.map { |patch| [patch, nil, nil] }
        end

        def card(patch, removal, stop)
          own = of(patch.id).group_by(&:kind)
          own.default = [].freeze
          people = own["people"].last
          Card.new(patch:, removal:, stop:, spells: spells(of(patch.id)), **counted(own),
                   people: people ? people.amount.to_i : usual(stop), **told(own))
        end

        def counted(own)
          { plants: own["plants"].sum(&:amount).to_i, stems: own["stems"].sum(&:amount).to_i,
            sizes: own["stems"].select(&:what).group_by(&:what).transform_values { |some| some.sum(&:amount).to_i } }
        end

        # What was said last counts.
        def told(own)
          { seed: own["seed"].last&.what, treated: own["treated"].last&.what,
            notes: own["note"].filter_map(&:what) }
        end

        def usual(stop) = stop ? stop.turns.map { |turn| turn[:people].size }.max : work_day.heads

        # A second start without a stop begins nothing; a stop before its start ends nothing.
        def spells(own)
          own.each_with_object([]) do |tap, found|
            open = found.any? && found.last.last.nil?
            found << [tap.at, nil] if tap.kind == "start" && !open
            found.last[1] = tap.at if tap.kind == "stop" && open && tap.at >= found.last.first
          end
        end
      end
    end
  end
end
