# frozen_string_literal: true

require "numo/narray"

module Thistle
  module Core
    module Recheck
      # What becomes of a patch: many futures of its stand under one strategy and another, each future with parameters
      # of its own, those that fit the patch's own counts more often.
      #
      #   stand = Outlook::Stand.new(plants: 100, m2: 400.0, past: [Past])
      #   Outlook.new(stages, stand).compare([Strategy])  # => [Answer]
      #
      # A year begins in spring. Quiet is a year from which on no more shows than a hundredth of what does now.
      class Outlook
        FUTURES, HORIZON = 500, 40
        CLEAN = 3 # years without anything after which nobody comes any more (memory)

        # A year of the past: visit: a Strategy, or nil where nobody came; alive, seedlings: counted, nil where they
        # were not; before: were those alive counted before the visit?
        Past = Value.define(:visit, :alive, :seedlings, :before)
        # What stands: plants when it was first seen; counted: did somebody count them? past: [Past]; now: a Past of the
        # year that has begun and was looked at, but not worked in yet, so that the futures begin with it; rain: seed
        # from elsewhere, as that of so many plants.
        Stand = Value.define(:plants, :m2, :now, counted: true, past: [], rain: 0.0)
        # How it is played: how many futures, over how many years, with what luck; clean: years without anything after
        # which nobody comes; hour_cost: of a person's hour.
        Play = Value.define(futures: FUTURES, horizon: HORIZON, clean: CLEAN, hour_cost: 25.0, seed: 1)
        # years: [Year] from now; quiet: {low, likely, high} years from now, nil for not within the horizon; hours,
        # litres, money: {low, likely, high, mean} over all years; failed: share of futures that are not quiet at the
        # end; gone: share in which nothing lives.
        Answer = Value.define(:strategy, :years, :quiet, :failed, :gone, :hours, :litres, :money, :matters)
        # At 5, 25, 50, 75 and 95 of a hundred futures: standing plants, seedlings, seeds in the ground; tended: share
        # of futures in which somebody still comes.
        Year = Value.define(:standing, :shows, :seeds, :tended)
        # Years until it is quiet, on the average, with a parameter in its lowest fifth, and in its highest.
        Matter = Value.define(:name, :low, :high) do
          def span = (high - low).abs
        end

        QUIET = 0.01
        BANDS = [0.05, 0.25, 0.5, 0.75, 0.95].freeze
        D = Numo::DFloat
        ENDS = BANDS.values_at(0, 2, 4).freeze
        DRAWN = 6 # futures drawn for each that is kept, where there are counts to fit
        AGREEING = 40 # that have to fit the counts; else these are taken less at their word
        # How far off a number of plants may be that somebody counted, and one that was taken from the area (memory).
        Off = Value.define(:low, :high) do
          def of(plants) = Stages::Spread.new(low: plants * low, likely: plants, high: plants * high, source: "memory")
        end
        COUNTED, GUESSED = Off.new(low: 0.8, high: 1.25), Off.new(low: 0.1, high: 3.0)
        MISCOUNTED = 0.4 # of a count's logarithm, its standard deviation (memory)

        # Raises BadInput (field :plants) for a stand of nothing or of more than can be.
        def initialize(stages, stand, play = Play.new)
          plants = stand.plants
          unless plants.is_a?(Numeric) && plants.to_f.finite? && plants.positive? && plants <= 10_000_000
            raise BadInput.new("An outlook begins with 1 to 10 million plants.", field: :plants)
          end

          @stages, @stand, @play = stages, stand, play
          @past, @now, @count, @horizon, @seed = stand.past, stand.now, play.futures, play.horizon, play.seed
        end

        # [Answer], one a strategy, on the same futures and the same luck.
        def compare(strategies) = strategies.map { |strategy| play(strategy).tap { let_go } }

        # Of how many drawn futures the fit rests on; nil where nothing was counted.
        def fit
          lived
          @fit
        end

        # Bands of the past, as the model has it: [[standing at 5, 50 and 95 %, seedlings the same]] a year.
        def behind
          lived
          @behind
        end

        # The Futures as they stand now.
        def lived = @lived ||= @past.any? || @now ? calibrated : fresh(@count)

        private

        def fresh(count)
          ranges = @stages.ranges
          kills = @past.filter_map(&:visit).uniq(&:key).to_h { |visit| ["kill #{visit.key}", visit.kill] }
          times = @stand.counted ? COUNTED : GUESSED
          Futures.new(ranges.merge(kills, "plants" => times.of(@stand.plants)),
                      count:, m2: @stand.m2, annual: @stages.annual?, rain: @stand.rain, seed: @seed).begin_with
        end

        # Plays the past, weighs each future by what was counted, and keeps so many by weight.
        def calibrated
          counted = [*@past, @now].compact.any? { |year| year.alive || year.seedlings }
          futures = fresh(counted ? @count * DRAWN : @count)
          shown = @past.each_with_index.map do |year, n|
            futures.year(n - @past.size, year.visit && as_made(futures, year.visit))
          end
          weight = D.zeros(futures.count) + shown.zip(@past).sum { |one, year| told(one, year) }
          weight += told(futures.picked((0...futures.count).to_a).year(0, nil), @now) if @now
          picks = counted ? drawn_by(weight) : (0...@count).to_a
          @behind = shown.map { |one| [one.standing, one.left].map { |values| quantiles(values[picks], ENDS) } }
          futures.picked(picks)
        end

        # A visit of the past.
        def as_made(futures, visit)
          done(futures, visit, futures.at["kill #{visit.key}"], D.zeros(futures.count) + visit.visits)
        end

        # The log likelihood of what was counted in a year.
        def told(shown, year)
          likely(year.alive, year.before ? shown.standing : shown.left) + likely(year.seedlings, shown.seedlings)
        end

        def likely(counted, there)
          return 0.0 unless counted

          apart = Numo::NMath.log((there + 1) / (counted + 1.0))
          variance = (MISCOUNTED**2) + (1 / (there + 1))
          -0.5 * (((apart**2) / variance) + Numo::NMath.log(variance))
        end

        # Places drawn by weight, evenly through the heap. Where hardly any fit, weights are drawn together until enough
        # do.
        def drawn_by(log)
          log -= log.max
          @fit = agreeing(log)
          log *= 0.8 while agreeing(log) < [AGREEING, @count].min
          heap = (Numo::NMath.exp(log) / Numo::NMath.exp(log).sum).cumsum.to_a
          at = 0
          Array.new(@count) do |n|
            at += 1 while at < heap.size - 1 && heap[at] < (n + 0.5) / @count
            at
          end
        end

        # Of weights, by their logarithms, how many equal ones would say as much (Kish).
        def agreeing(log) = Numo::NMath.exp(log).then { |weight| ((weight.sum**2) / (weight**2).sum).round }

        # Numo's numbers lie outside of what Ruby counts: hundreds of megabytes would wait for it to look.
        def let_go = GC.start(full_mark: false)

        # What a strategy does in a year, as Futures#year takes it.
        def done(futures, strategy, kill, visits)
          { visits:, kill:, found: futures.at["found"], small: futures.at["found_small"], stirred: strategy.stirred,
            late: strategy.late, tears: strategy.tears, wakes: strategy.wakes }
        end

        # One strategy from now on, year by year, in every future.
        def play(strategy)
          futures = lived.picked((0...@count).to_a)
          kill = Draws.of("kill", strategy.kill, Draws.normal(@seed + 77, @count)) # the same luck with every method
          clean, last = D.zeros(@count), D.zeros(@count)
          first = nil
          years = Array.new(@horizon) do |n|
            visits = D.cast(clean.lt(@play.clean)) * (strategy.tends?(n) ? strategy.visits : 0)
            one = futures.year(n, strategy.tends?(n) ? done(futures, strategy, kill, visits) : nil)
            shows = one.standing + one.seedlings
            first ||= (shows * QUIET).clip(1, nil)
            clean = (clean + 1) * D.cast(shows.lt(1))
            last = D.maximum(last, D.cast(shows.gt(first)) * (n + 1))
            [visits, one, shows]
          end
          answer(strategy, futures, years, last)
        end

        def answer(strategy, futures, years, last)
          low, likely, high = quantiles(last, ENDS).map { |year| year >= @horizon ? nil : year.round }
          spent = years.map { |visits, one, _| strategy.spent(one.hit, one.pulled, visits, @play.hour_cost) }
          sums = spent.transpose.map { |some| range(some.sum) }
          Answer.new(strategy:, quiet: { low:, likely:, high: }, failed: D.cast(last >= @horizon).mean,
                     gone: D.cast(years.last[1].alive.eq(0)).mean, **%i[hours litres money].zip(sums).to_h,
                     years: years.map { |year| drawn(*year) }, matters: matters(futures, last))
        end

        def drawn(visits, shown, shows)
          Year.new(standing: quantiles(shown.standing), shows: quantiles(shows), seeds: quantiles(shown.seeds),
                   tended: D.cast(visits.gt(0)).mean)
        end

        def range(values) = { **%i[low likely high].zip(quantiles(values, ENDS)).to_h, mean: values.mean }

        # Values at shares of the futures.
        def quantiles(values, shares = BANDS)
          sorted = values.sort
          shares.map { |share| sorted[((values.size - 1) * share).round] }
        end

        # What makes the most difference to the years, the largest first.
        def matters(futures, years)
          fifth = [@count / 5, 1].max
          found = futures.at.except("stood").filter_map do |name, values|
            next if values.min == values.max || name.start_with?("kill ")

            order = values.sort_index
            Matter.new(name:, low: years[order[0...fifth]].mean, high: years[order[-fifth..]].mean)
          end
          found.sort_by { |matter| -matter.span }
        end
      end
    end
  end
end
