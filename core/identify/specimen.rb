# frozen_string_literal: true

module Thistle
  module Core
    module Identify
      # A plant as one may stand on a day: an aspect drawn from its mixture, and which organs are there to be seen. The
      # same random numbers draw the same specimen.
      class Specimen
        attr_reader :plant, :aspect

        # aspects: {key => Aspect}; only: keys of those that it may be, nil for any.
        def initialize(mixture, aspects, random, only: nil)
          @plant = mixture.plant
          shares = only ? mixture.shares.slice(*only) : mixture.shares
          @aspect = aspects.fetch(pick(shares, random))
          @organs = mixture.visible(@aspect).select { |_, chance| random.rand < chance }.keys
        end

        # Is the character's organ there?
        def shows?(character) = !Mixture::SHOWN_BY.key?(character.shows) || @organs.include?(character.shows)

        # What it shows of a character, drawn; nil where nothing is there or nothing is known.
        def answer(character, random)
          shares = aspect.shares(character, plant) if shows?(character)
          character.answer_in(pick(shares, random)) if shares
        end

        private

        def pick(shares, random)
          drawn = random.rand * shares.values.sum
          RunningSum.reaching(drawn, shares.keys) { |state| shares[state] } || shares.keys.last
        end
      end
    end
  end
end
