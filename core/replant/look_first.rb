# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # Plant or wait? A race on cleared ground between the natives that came by themselves and what the invader will
      # still send, over many futures: how often do the natives close it first?
      class LookFirst
        Reason = Value.define(:text, :source)
        # kind: :look (nobody said what came up), :wait, :gaps or :plant; odds: that natives close the ground first, 0
        # to 1, nil where they are not known; closed: cover of natives at the end of each year, [low, likely, high];
        # seedlings: of the invader on a square metre next year.
        Answer = Value.define(:kind, :odds, :closed, :seedlings, :reasons)

        # Share of the ground that natives hold, and how fast they spread (logistic, a year): low, likely, high
        # (memory).
        COVERS = { "none" => [0.002, 0.01, 0.04], "some" => [0.05, 0.15, 0.3], "many" => [0.25, 0.45, 0.7] }.freeze
        SPREAD = [0.5, 1.0, 1.8].freeze
        CLOSED, LOST = 0.7, 0.3 # of the ground: closed by natives; lost to the invader (memory)
        WAIT, GAPS = 0.7, 0.3 # odds from which one waits, and from which one fills the gaps (memory)
        FLUSH = 5.0 # seedlings on a square metre, from which nothing is sown among them (memory)
        BARE = 0.5 # of the ground, from which a steep slope does not wait (memory)
        FUTURES, STEPS = 400, 12

        # natives: a key of COVERS, nil where nobody said; bare: share of the ground, nil where it is not known; slope:
        # "flat", "slope" or "steep"; invader: the share of the ground that it holds in each of the next years,
        # [[low, likely, high]]; seedlings: of it on a square metre next year. Raises BadInput (field :natives).
        def initialize(natives:, bare:, slope:, invader:, seedlings:, seed: 1)
          unless natives.nil? || COVERS.key?(natives)
            raise BadInput.new("Natives are #{COVERS.keys.join(", ")}.", field: :natives)
          end

          @natives, @bare, @slope, @invader, @seedlings, @seed = natives, bare, slope, invader, seedlings, seed
        end

        # The Answer.
        def answer
          return unknown unless @natives

          won, covers = race
          odds = won.count(true).fdiv(FUTURES)
          kind = steep? ? :plant : by_odds(odds)
          Answer.new(kind:, odds:, closed: covers, seedlings: @seedlings, reasons: reasons(kind, odds))
        end

        # Cover after years of spreading from a share, where another holds so much each year.
        def self.spread(share, rate, held)
          held.map do |taken|
            STEPS.times { share += rate / STEPS * share * [1 - share - taken, 0].max }
            share
          end
        end

        private

        def unknown
          Answer.new(kind: :look, seedlings: @seedlings,
                     reasons: [Reason.new(text: "nobody said yet which natives come up by themselves",
                                          source: "common_practice")])
        end

        # [[did natives close it first], [[low, likely, high] of their cover each year]].
        def race
          random = Random.new(@seed)
          runs = Array.new(FUTURES) do
            luck = Normal.draw(random)
            held = @invader.map { |range| [drawn(range, luck), 1.0].min }
            [self.class.spread(drawn(COVERS[@natives], Normal.draw(random)), drawn(SPREAD, Normal.draw(random)), held),
             held]
          end
          [runs.map { |covers, held| first?(covers, held) }, years(runs.map(&:first))]
        end

        def first?(covers, held)
          closed, lost = covers.index { |share| share >= CLOSED }, held.index { |share| share >= LOST }
          !closed.nil? && (lost.nil? || closed < lost)
        end

        def years(runs)
          runs.transpose.map { |some| some.sort.values_at(FUTURES / 10, FUTURES / 2, FUTURES * 9 / 10) }
        end

        # A value of a range, normal about its logarithm; the ends are the tenth and the ninetieth of a hundred.
        def drawn((low, likely, high), normal)
          low, likely, high = [low, likely, high].map { |value| Math.log([value, 1e-6].max) }
          Math.exp(likely + (normal * (normal.positive? ? high - likely : likely - low) / Normal::Z80))
        end

        def steep? = @slope == "steep" && @bare.to_f >= BARE

        def by_odds(odds)
          return :wait if odds >= WAIT

          odds >= GAPS ? :gaps : :plant
        end

        def reasons(kind, odds)
          said = { wait: "natives close the ground by themselves more often than not: weed, and look again",
                   gaps: "natives come, but not everywhere: plant where they do not",
                   plant: "too little comes up by itself to close the ground" }
          text = steep? ? "bare steep ground must be planted now" : said[kind]
          found = [Reason.new(text:, source: "common_practice")]
          if @seedlings.to_f >= FLUSH
            text = "next year's seedlings of the invasive plant: about {dense:#{@seedlings.round}}. Plant plugs, " \
                   "which can be weeded around. Sow nothing until these seedlings are gone"
            found << Reason.new(text:, source: "memory")
          end
          found << Reason.new(text: "the invader may take the ground back first", source: "memory") if odds < GAPS
          found.freeze
        end
      end
    end
  end
end
