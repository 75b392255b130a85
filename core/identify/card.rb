# frozen_string_literal: true

module Thistle
  module Core
    module Identify
      # A specimen dealt for practice: looks drawn from the plant's own frequencies, of what can be seen on a day,
      # and names to choose from. The same seed deals the same card.
      class Card
        LOOKS = 7
        NAMES = 4

        attr_reader :plant, :date

        # rivals: keys of plants that it was taken for; they are among the names.
        def initialize(plant, seed:, site:, rivals: [], date: site.today, knowledge: Knowledge.shipped)
          @plant, @site, @date, @knowledge = plant, site, date, knowledge
          @rivals = rivals
          @random = Random.new(seed)
          @names = draw_names
          @looks = draw_looks
        end

        # Plants to choose from, in the order of their names.
        attr_reader :names

        # {character => answer}; what separates the plant from the other names comes first.
        attr_reader :looks

        private

        # Rivals, look-alikes, then the plants that look most like it, those of its form first.
        def draw_names
          look_alikes = Settlement.pairs(plant, @knowledge).map(&:plant).shuffle(random: @random)
          same, rest = (@knowledge.plants.values - [plant]).partition { |other| other.form == plant.form }
          alike = same.min_by(12) { |other| apart(other) }.shuffle(random: @random) + (same.size < NAMES ? rest : [])
          others = (@rivals.map { |key| @knowledge.plant(key) } + look_alikes + alike).uniq - [plant]
          [plant, *others.first(NAMES - 1)].sort_by(&:name)
        end

        def apart(other)
          shared = plant.characters.keys & other.characters.keys
          return 1.0 if shared.empty?

          shared.sum { |key| distance(@knowledge.characters[key], other) } / shared.size
        end

        def distance(character, other) = character.apart(plant, other) || 0.5

        # Mostly what tells it from the other names, so that the card can be answered; the rest at random.
        def draw_looks
          telling = visible.sort_by { |character| -(names - [plant]).sum { |other| distance(character, other) } }
          chosen = telling.first(LOOKS - 2) + telling.drop(LOOKS - 2).sample(2, random: @random)
          chosen.sort_by do |character|
            @knowledge.characters.keys.index(character.key)
          end.to_h { |character| [character, specimen.answer(character, @random)] }
        end

        # Mostly a grown plant: seedlings and dead stems are for those who know it.
        def specimen
          @specimen ||= begin
            mixture = Mixture.new(plant, @site.calendar(plant), date)
            Specimen.new(mixture, @knowledge.aspects, @random, only: %w[young grown turning])
          end
        end

        def visible
          year = Turn.new(@site, date)
          plant.characters.keys.map { |key| @knowledge.characters.fetch(key) }.reject(&:touch)
               .select { |character| year.shows?(character.shows) && specimen.shows?(character) }
        end
      end
    end
  end
end
