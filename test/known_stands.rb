# frozen_string_literal: true

module Thistle
  # Stands with parameters that are known, counted as people count, and asked for again: how often do the 90 % bands
  # of an Outlook hold what became of them? What the tests and the bench ask.
  class KnownStands
    BEHIND, AHEAD = 4, 3 # years that were counted, and ahead
    KILL = Core::Recheck::Stages::Spread.new(low: 0.8, likely: 0.92, high: 0.98, source: "memory")
    VISIT = Core::Recheck::Strategy.new(key: "known", kill: KILL, visits: 1)

    def initialize(stages, patches:, plants: 200, m2: 400.0, seed: 5)
      @stages, @patches, @plants, @m2, @seed = stages, patches, plants, m2, seed
    end

    # The share of stands that stood within their band.
    def held
      truth = true_years
      within = Array.new(@patches) { |n| within?(truth, n) }
      within.count(true).fdiv(@patches)
    end

    private

    def true_years
      ranges = @stages.ranges.merge("kill" => KILL, "plants" => Core::Recheck::Outlook::COUNTED.of(@plants))
      futures = Core::Recheck::Futures.new(ranges, count: @patches, m2: @m2, annual: @stages.annual?, seed: @seed)
      futures.begin_with
      at = { kill: futures.at["kill"], found: futures.at["found"], small: futures.at["found_small"] }
      visit = { visits: Numo::DFloat.ones(@patches), stirred: false, late: false, **at }
      Array.new(BEHIND + AHEAD) { |n| futures.year(n, visit) }
    end

    def within?(truth, place)
      past = truth.first(BEHIND).each_with_index.map do |year, n|
        Core::Recheck::Outlook::Past.new(visit: VISIT, alive: counted(year.left[place], (place * 10) + n),
                                         seedlings: counted(year.seedlings[place], (place * 10) + n + 5))
      end
      stand = Core::Recheck::Outlook::Stand.new(plants: @plants, m2: @m2, past:)
      play = Core::Recheck::Outlook::Play.new(seed: 1000 + place, horizon: AHEAD)
      outlook = Core::Recheck::Outlook.new(@stages, stand, play)
      band = outlook.compare([VISIT]).first.years.last.shows
      truth.last.then { |year| year.standing[place] + year.seedlings[place] }.between?(band.first, band.last)
    end

    # As somebody may have counted it.
    def counted(there, seed)
      spread = Math.sqrt((Core::Recheck::Outlook::MISCOUNTED**2) + (1 / (there + 1)))
      [Math.exp(Math.log(there + 1) + (Core::Recheck::Draws.normal(seed, 1)[0] * spread)) - 1, 0].max.round
    end
  end
end
