# frozen_string_literal: true

module Thistle
  module Core
    module Identify
      # A multi-access key that weighs: any character in any order, mistakes forgiven.
      #
      #   Key.new({ "pith" => "hollow" }, site:, date:).candidates  # => [Candidate], likeliest first
      #
      # Every plant starts equal. An answer multiplies each plant's weight by the chance of that answer:
      # (1 - e) x share of the state in the plant + e / states, e being the character's observer error.
      class Key
        # How often, as shares; a state that a file does not list for a described character counts as never (memory).
        SHARES = { "always" => 0.96, "usually" => 0.75, "sometimes" => 0.3, "rarely" => 0.06, "never" => 0.005 }.freeze
        FITS = %w[always usually sometimes].freeze
        SETTLED_AT = 0.95
        LIKELY = 0.02 # below it, a plant no longer shapes what is asked
        EFFORT = { 1 => 1.0, 2 => 0.8, 3 => 0.6 }.freeze

        Candidate = Value.define(:plant, :probability, :fits, :against, :unseen)

        attr_reader :observed, :site, :date, :knowledge

        # observed: {character key => state key}. Raises BadInput on a key that is not in the library.
        def initialize(observed, site:, date: site.today, knowledge: Knowledge.shipped)
          @knowledge, @site, @date = knowledge, site, date
          @observed = observed.each { |key, state| check(key, state) }.dup.freeze
        end

        def candidates
          @candidates ||= weights.sort_by { |plant, p| [-p, plant.name] }
                                 .map { |plant, p| candidate(plant, p) }.freeze
        end

        def top = candidates.first

        # Bits of doubt left.
        def doubt = entropy(weights.values)

        # Characters worth showing now: answered ones, and those that some likely plant is described by and
        # can be seen on this date.
        def askable
          knowledge.characters.values.select do |character|
            observed.key?(character.key) || (visible?(character) && telling?(character))
          end
        end

        # The next best look, or nil when nothing that can be seen today would help.
        def next_look
          @next_look ||= askable.reject { |c| observed.key?(c.key) || (c.touch && hazard_likely?) }
                                .map { |c| Look.new(self, c) }.max_by(&:worth)&.then { |look| look.gain > 0.01 ? look : nil }
        end

        # A key with one more answer.
        def plus(character, state) = self.class.new(observed.merge(character => state), site:, date:, knowledge:)

        def settlement = Settlement.new(self)

        # {plant => probability}
        def weights
          @weights ||= begin
            raw = knowledge.plants.values.to_h do |plant|
              [plant, observed.reduce(1.0) { |weight, (key, state)| weight * chance(plant, key, state) }]
            end
            total = raw.values.sum
            raw.transform_values { |weight| weight / total }
          end
        end

        # Chance that someone looking at `plant` answers `state`.
        def chance(plant, key, state)
          character = knowledge.characters.fetch(key)
          frequency = plant.characters[key]
          return 1.0 / character.states.size unless frequency

          shares = character.states.keys.to_h { |name| [name, SHARES.fetch(frequency.fetch(name, "never"))] }
          ((1 - character.error) * shares.fetch(state) / shares.values.sum) + (character.error / character.states.size)
        end

        def entropy(weights) = -weights.sum { |p| p.positive? ? p * Math.log2(p) : 0 }
        def hazard_likely? = weights.any? { |plant, p| plant.hazardous? && p > 0.05 && p < SETTLED_AT }

        private

        def check(key, state)
          character = knowledge.characters[key]
          raise BadInput.new("“#{key}” is not a character in the library.", field: key) unless character
          raise BadInput.new("“#{state}” is not a state of #{key}.", field: key) unless character.states.key?(state)
        end

        def candidate(plant, probability)
          seen, unseen = plant.characters.keys.partition { |key| observed.key?(key) }
          fits, against = seen.partition { |key| FITS.include?(plant.characters[key][observed[key]]) }
          Candidate.new(plant:, probability:, fits:, against:, unseen:)
        end

        def likely = @likely ||= weights.select { |_, p| p >= LIKELY }.keys

        def visible?(character)
          return true if character.shows == "any"

          likely.any? { |plant| phases(plant).intersect?(phases_for(character.shows)) }
        end

        def phases_for(shows) = shows == "fruit" ? %i[green_seed ripe_seed] : [shows.to_sym]
        def phases(plant) = (@phases ||= {})[plant.key] ||= Season::Phenology.new(plant, site).phases_on(date)

        def telling?(character)
          described = likely.filter_map { |plant| plant.characters[character.key] }
          described.uniq.size > 1 || (observed.empty? && described.any?)
        end
      end
    end
  end
end
