# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # How a Standing goes on at the likely values of its plant's Stages: through a season, and from one to the next.
      class Growth
        DOUBLING = 20.0 # new plants of one in a year, from which a stand is another within weeks (memory)
        SPREADS = (90..270) # days of a season-year in which it spreads (memory)

        def initialize(stages, m2:, latitude:)
          @at, @left, @latitude = stages.likely, stages.left, latitude
          @annual, @woody = stages.annual?, stages.plant.woody?
          @doubles = @at["creep"] >= DOUBLING
          @most = 2 * @at["crowd"] * [m2.to_f, 1.0].max
        end

        # This season's seed, if it did not fall yet.
        def fall(state)
          return state if state.fallen

          state.with(seeds: state.seeds + (state.adults * @at["fecundity"] * state.bears), fallen: true)
        end

        # The end of a season and the rise of the next, as Futures has them.
        def next_year(state)
          state = fall(state)
          up = state.seeds * @at["germination"]
          seeds = state.seeds * @left
          return annual(state, up, seeds) if @annual

          grown(state).with(seedlings: up, seeds:, fallen: false)
        end

        # Grown on to a day of the same season: of a year's spread as much as of its days are over.
        def spread(state, day)
          return state unless @doubles

          start = Season::Year.start_of(day, @latitude)
          over = [state.on, day].map { |one| (one - start).to_i.clamp(SPREADS.begin, SPREADS.end) }
          share = (over[1] - over[0]).fdiv(SPREADS.end - SPREADS.begin)
          return state unless share.positive? && state.adults.positive?

          new = places(state.adults * (((1 + @at["creep"])**share) - 1), state.plants, 1.0, state)
          state.with(adults: state.adults + new)
        end

        private

        def annual(state, up, seeds)
          plants = places(up * @at["seedlings"], 0.0, 1.0, state)
          state.with(adults: plants, young: 0.0, small: 0.0, seedlings: up - plants, seeds:, fallen: false)
        end

        def grown(state)
          taken = state.plants + (state.small * Futures::SMALL)
          daughters = state.adults * (@doubles ? left_of_spread(state) : @at["creep"])
          bearing = places(daughters * @at["daughters"], taken, 1.0, state)
          new = places((state.seedlings * @at["seedlings"]) + (daughters * (1 - @at["daughters"])), taken + bearing,
                       Futures::SMALL, state)
          older = aged(state, bearing)
          @woody ? refilled(state, older, new) : older.with(young: older.young + new)
        end

        # Who lives on, and who comes to bear; what was counted is no seedling any more.
        def aged(state, more)
          ripe = 1 / [@at["to_seed"] - 1, 1].max
          young = state.young * (@woody ? [@at["juveniles"], @at["adults"]].max : @at["juveniles"])
          small = state.small * @at["juveniles"]
          state.with(adults: (state.adults * @at["adults"]) + ((young + small) * ripe) + more,
                     young: young * (1 - ripe), small: small * (1 - ripe))
        end

        # Where a grown shrub or tree dies, a small one takes its place; the others stay small until they bear.
        def refilled(before, after, new)
          small = after.small + new
          place = (before.plants - after.plants).clamp(0, small)
          after.with(young: after.young + place, small: small - place)
        end

        # Of a year's spread, what is left after the day that a state is of.
        def left_of_spread(state)
          start = Season::Year.start_of(state.on, @latitude)
          over = (state.on - start).to_i.clamp(SPREADS.begin, SPREADS.end)
          ((1 + @at["creep"])**(SPREADS.end - over).fdiv(SPREADS.end - SPREADS.begin)) - 1
        end

        # Newcomers that find room (Futures#settled); what stood there before found it.
        def places(newcomers, taken, each, state)
          most = [@most, state.ground].max
          free = [most - taken, 0.0].max
          [free / each * (1 - Math.exp(-newcomers * each / most)), newcomers].min
        end
      end
    end
  end
end
