# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # What labels still allow on pieces of ground, shared by the Options that would put something there.
      class LabelCaps
        NEARLY = 1e-6

        # What may still go onto each piece, in any unit; a piece's number is its place.
        attr_reader :most

        # pieces: [[{Option => amount of one of its parts}, most]].
        def initialize(pieces)
          @most = pieces.map(&:last)
          @of = Hash.new([].freeze)
          pieces.each_with_index do |(uses, _), n|
            uses.each { |option, amount| @of[option] += [[n, amount]] }
          end
        end

        NONE = new([])

        # [[number of a piece, amount of one part]] of an option.
        def of(option) = @of[option]

        # Would doing all of its parts take an option past what is left, wherever it is done? Parts lie beside each
        # other, so one of them puts as much on its ground as all of them on theirs.
        def past?(option) = of(option).any? { |n, amount| amount * option.parts > most[n] * (1 + NEARLY) }
      end
    end
  end
end
