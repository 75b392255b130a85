# frozen_string_literal: true

module Thistle
  module Core
    module Identify
      # A multi-access key that weighs: any character in any order, mistakes forgiven.
      #
      #   Key.new({ "pith" => "hollow" }, site:, date:).candidates  # => [Candidate], likeliest first
      #
      # Bayes' rule over the library: what is to be expected here today (Prior) times the chance of each answer
      # (Chances), scaled to 1 together with the plants that the library does not know.
      class Key
        FITS = %w[always usually sometimes].freeze
        SETTLED_AT = 0.95
        LIKELY = 0.002 # below it, a plant no longer shapes what is asked
        # weight, before anyone looks, of plants that the library does not know, against 1 - it (memory)
        UNLISTED = 0.33
        LEADS = 0.5      # from this chance on, a plant leads: what decides against its look-alikes is asked first
        LEADING = 0.4    # from this chance on, looks are asked for that confirm it
        WORTHLESS = 0.005 # bits; a look that tells less is not asked for
        HAZARD = 0.05 # from this chance on, a plant that can harm decides what may be touched
        SEEN = 0.12 # below it, of likely plants, an organ is not there to be asked for (memory)
        HAVING = 0.2 # below it, a part that most likely plants do not have is not asked for (memory)
        FIRST, SOME = 5, 2 # plants that a person reads of; answers from which the order of plants says something
        EFFORT = { 1 => 1.0, 2 => 0.8, 3 => 0.6 }.freeze
        MANY = 90 # from so many plants on, aspects hardly change what is asked first
        LISTED = 12 # candidates told in full

        Candidate = Value.define(:plant, :probability, :fits, :against, :unseen)

        attr_reader :observed, :absent, :skipped, :site, :date, :region, :knowledge, :prior, :chances

        # observed: {character => state, or a number for a measured one}; absent: {character => [states that it does not
        # have]}; skipped: characters that cannot be told. Raises BadInput on a key that is not in the library.
        def initialize(observed, site:, date: site.today, region: nil, knowledge: Knowledge.shipped, **more)
          @site, @date, @region, @knowledge = site, date, region, knowledge
          @chances = Chances.of(knowledge)
          @absent, @skipped = more.fetch(:absent, {}), more.fetch(:skipped, [])
          @prior = more[:prior] || Prior.new(chances:, site:, date:, region:)
          @states = observed.to_h { |key, answer| [key, character(key).state_of(answer)] }
          @absent.each { |key, states| states.each { |state| character(key).state_of(state) } }
          @observed = observed.dup.freeze
        end

        # The likeliest plants, at most LISTED.
        def candidates
          @candidates ||= order.map { |n| candidate(chances.plants[n]) }.freeze
        end

        def top = candidates.first
        def probability(plant) = probabilities[chances.index(plant)]

        # {plant => probability}; with `unlisted` they add up to 1.
        def weights = chances.plants.zip(probabilities).to_h

        # The chance that it is a plant which the library does not know.
        def unlisted = probabilities.drop(size).sum

        # Numbers in the order of Chances#plants, then those of the strangers beside them.
        def probabilities = evidence.probabilities

        # Bits of doubt left.
        def doubt = -probabilities.sum { |p| p.positive? ? p * Math.log2(p) : 0 }

        # Indexes of the plants that still shape what is asked.
        def likely = @likely ||= (0...size).select { |n| probabilities[n] >= LIKELY }

        # What to expect of a character, over likely plants and strangers: {state => [its chance m, the mean of
        # c log2 c]}, c being its chance in each. The inner loop of every suggestion.
        def expect(character)
          among, weights = shaping
          return evidence.expect(character, among, weights) if among.size <= MANY

          logs = chances.logs(character)
          chances.rows(character).to_h do |state, row|
            [state, [row, logs[state]].map { |one| over(one.values_at(*among), weights) }]
          end
        end

        # What would lead, were one more answer given: {state => [plant, its chance]}.
        def leads(character, states)
          evidence.leads(character, states).transform_values { |n, chance| [chances.plants[n], chance] }
        end

        # The next best look, or nil when nothing that can be seen today would help.
        def next_look = looks.first

        # Looks still open that would help and that nobody is harmed by, best first. Once one plant leads, what decides
        # between it and its look-alikes comes first.
        def looks
          @looks ||= begin
            deciding = top.probability > LEADS ? settlement.missing : []
            looks = open.map { |character| Look.new(self, character) }
            looks.select { |look| look.gain > WORTHLESS || deciding.include?(look.character.key) }
                 .sort_by.with_index { |look, n| [deciding.include?(look.character.key) ? 0 : 1, -look.worth, n] }
          end
        end

        # Characters left out because a plant that can harm may be this one.
        def withheld
          touches = hazards.any?(&:grave?) ? %w[feel crush break cut dig] : %w[crush break]
          hazards.any? ? unanswered.select { |character| touches.include?(character.touch) } : []
        end

        # The chance that a character can be seen today, over the likely plants.
        def shown(character)
          return 0.0 unless prior.year_shows?(character.shows)
          return 1.0 unless Mixture::SHOWN_BY.key?(character.shows)

          evidence.shown(character.shows, likely)
        end

        def settlement = @settlement ||= Settlement.new(self)
        def state(key) = @states[key]

        # Plants that can harm and may be this one; a grave one also where it only stands among the first FIRST, or
        # where the leading plant has not been told from it.
        def hazards
          @hazards ||= begin
            probable = likely.select { |n| probabilities[n] >= HAZARD }.map { |n| chances.plants[n] }
                             .select(&:hazardous?)
            probable | (observed.size < SOME ? [] : near.select(&:grave?))
          end
        end

        # How an answer sits with a plant: :fits, :against, or nil where its file is silent. What it shows in an aspect
        # that it may well be in fits, too.
        def stand(plant, key)
          told = character(key).told(plant)
          return if told.empty?

          state = @states.fetch(key)
          FITS.include?(told[state]) || evidence.shows?(plant, character(key), state) ? :fits : :against
        end

        private

        # Plants among the first FIRST that still count, and those from which the leading one has not been told.
        def near
          first = order.first(FIRST).select { |n| probabilities[n] >= LIKELY }.map { |n| chances.plants[n] }
          pairs = settlement.pairs.reject { |pair| pair.by.any? { |key| observed.key?(key) } }.map(&:plant)
          first | (top.probability > LEADING ? pairs.select { |plant| probability(plant) >= LIKELY } : [])
        end

        def size = chances.plants.size

        def evidence
          @evidence ||= Evidence.new(chances:, prior:, seen: @states, absent: @absent, unlisted: UNLISTED)
        end

        # Numbers of what shapes the questions, and what each weighs, scaled to 1: the likely plants and, once one of
        # them leads, the strangers beside them, so that looks are asked that confirm the name.
        def shaping
          @shaping ||= begin
            weighed = top.probability > LEADING ? probabilities : probabilities.first(size)
            found = weighed.each_index.select { |n| weighed[n] >= LIKELY }
            weights = weighed.values_at(*found)
            total = weights.sum
            [found, weights.map { |p| p / total }]
          end
        end

        def over(row, weights)
          sum = at = 0
          while at < weights.size
            sum += weights[at] * row[at]
            at += 1
          end
          sum
        end

        def character(key)
          knowledge.characters.fetch(key) do
            raise BadInput.new("“#{key}” is not a character in the library.", field: key)
          end
        end

        def unanswered
          @unanswered ||= knowledge.characters.values.reject do |c|
            observed.key?(c.key) || absent.key?(c.key) || skipped.include?(c.key) || shown(c) < SEEN || has(c) < HAVING
          end
        end

        # The chance that the plant has such a part at all, over the likely plants.
        def has(character)
          @likely_weight ||= probabilities.values_at(*likely).sum
          chances.having(character.key, likely).sum { |n| probabilities[n] } / @likely_weight
        end

        def open = unanswered - withheld

        # Numbers of the first LISTED plants, alike ones by name.
        def order
          @order ||= begin
            least = probabilities.first(size).max(LISTED).last
            among = (0...size).select { |n| probabilities[n] >= least }
            among.sort_by { |n| [-probabilities[n], chances.plants[n].name] }.first(LISTED)
          end
        end

        def candidate(plant)
          by = observed.keys.group_by { |key| stand(plant, key) }
          Candidate.new(plant:, probability: probability(plant), fits: by.fetch(:fits, []),
                        against: by.fetch(:against, []),
                        unseen: plant.characters.keys - observed.keys)
        end
      end
    end
  end
end
