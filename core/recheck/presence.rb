# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # Whether anything of a quiet patch still lives: a plant that the clean looks missed, seed in the ground, pieces
      # of root or stem. Each clean look counts by what it would have seen; seed and pieces are spent with the years,
      # and sooner where looks saw that none came up.
      class Presence
        # on: its day; detects: the chance that it would have seen a live plant.
        Look = Value.define(:on, :detects)
        # The next look: on, chance then that anything lives, cost of it, what a year's wait longer would add to a day.
        Next = Value.define(:on, :chance, :cost, :daily)
        SPENT = Stages::SPENT
        SOON, LATE = 14, 3 * 365 # days between which the next look is set
        SHOWS_UP = 0.2 # of living seed or pieces that come up in a year, at least, when looks are weighed (memory)

        # looks: clean ones in a row, [Look]; fell_on: when seed last fell; lived_on: when a piece last lived;
        # seed_years, piece_years: until a hundredth is left, nil where there are none.
        def initialize(looks:, fell_on: nil, lived_on: nil, seed_years: nil, piece_years: nil)
          @looks, @fell_on, @lived_on, @seed_years, @piece_years = looks, fell_on, lived_on, seed_years, piece_years
        end

        attr_reader :fell_on

        # 0 to 1 on a day.
        def chance(on) = 1 - ((1 - stands) * (1 - seed(on)) * (1 - pieces(on)))

        # That a plant stands which every look missed.
        def stands = @stands ||= Alive.after(@looks.map(&:detects))
        def seed(on) = hidden(@fell_on, @seed_years, on)
        def pieces(on) = hidden(@lived_on, @piece_years, on)

        # When to look next: where a look's cost a day is least together with what a stand that is not seen costs more
        # to clear. shows: ->(day) { would anything be up? }; cost: of a look; clearing: of the stand if it were found
        # now; growth: times that it grows in a year. Answers a Next; nil where nothing would show within the time.
        def next_look(from:, cost:, clearing:, growth:, shows:)
          last = @looks.map(&:on).max || from
          days = (SOON..LATE).select { |n| last + n >= from && (n % 7).zero? && shows[last + n] }
          best = days.min_by { |n| daily(last, n, cost, clearing, growth) } or return

          daily = daily(last, best, cost, clearing, growth)
          Next.new(on: last + best, chance: chance(last + best), cost:, daily:)
        end

        # What a look this season saves, of what a year's growth that nobody sees would cost.
        def saves(on, detects:, clearing:, growth:) = chance(on) * detects * clearing * (growth - 1)

        private

        def daily(last, days, cost, clearing, growth)
          escape = chance(last + days) * clearing * ((growth**(days / 365.25)) - 1)
          (cost + escape) / days
        end

        # What each year's looks between two days leave unseen of what lives, the best look of each year counting.
        def unseen(since, on)
          on = [on, @looks.map(&:on).max || on].min # later days know no more
          (@unseen ||= {})[[since, on]] ||= begin
            seasons = @looks.select { |look| look.on > since && look.on <= on }.group_by { |look| look.on.year }
            seasons.values.reduce(1.0) { |left, some| left * (1 - (SHOWS_UP * some.map(&:detects).max)) }
          end
        end

        # Of what is under the ground: spent by a hundredth in so many years; each year's looks that saw nothing come up
        # speak against it.
        def hidden(since, years, on)
          return 0.0 unless since && years

          prior = SPENT**([(on - since).to_i, 0].max / 365.25 / [years, 0.25].max)
          unseen = unseen(since, on)
          prior * unseen / ((prior * unseen) + 1 - prior)
        end
      end
    end
  end
end
