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
        SPENT = Stages::SPENT
        SHOWS_UP = 0.2 # of living seed or pieces that come up in a year, at least, when looks are weighed (memory)

        # looks: clean ones in a row, [Look]; fell_on: when seed last fell; lived_on: when a piece last lived;
        # seed_years, piece_years: until a hundredth is left, nil where there are none; latitude: degrees, by which
        # looks on both sides of New Year are of one growing season or of two.
        def initialize(looks:, fell_on: nil, lived_on: nil, seed_years: nil, piece_years: nil, latitude: 0.0)
          @looks, @fell_on, @lived_on, @seed_years, @piece_years = looks, fell_on, lived_on, seed_years, piece_years
          @latitude = latitude
        end

        attr_reader :fell_on

        # 0 to 1 on a day.
        def chance(on) = 1 - ((1 - stands) * (1 - seed(on)) * (1 - pieces(on)))

        # That a plant stands which every look missed.
        def stands = @stands ||= Alive.after(@looks.map(&:detects))
        def seed(on) = hidden(@fell_on, @seed_years, on)
        def pieces(on) = hidden(@lived_on, @piece_years, on)

        # What a look this season saves, of what a year's growth that nobody sees would cost.
        def saves(on, detects:, clearing:, growth:) = chance(on) * detects * clearing * (growth - 1)

        private

        # What each growing season's looks between two days leave unseen of what lives, the best look of each counting.
        def unseen(since, on)
          on = [on, @looks.map(&:on).max || on].min # later days know no more
          (@unseen ||= {})[[since, on]] ||= begin
            counted = @looks.select { |look| look.on > since && look.on <= on }
            seasons = counted.group_by { |look| Season::Year.start_of(look.on, @latitude) }
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
