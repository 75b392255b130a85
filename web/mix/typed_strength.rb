# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      # A strength as it was typed: with its unit behind it ("2 qt/ac"), or in the list beside it.
      class TypedStrength
        DIGITS = /\A([-−\d.,\s\u00A0\u202F']*)(.*)\z/m

        # said: a key of Core::Mix::Way, where no unit was typed; desk: its spray, its use and how it reads a comma.
        def initialize(text, said, desk)
          @digits, @unit = text.to_s.strip.match(DIGITS).captures
          @said, @desk = said, desk
        end

        # The Core::Mix::Strength. Raises BadInput (field :target).
        def of(product)
          Core::Mix::Strength.read(number, way.key, product, spray: @desk.spray,
                                                             carrier: product.on(@desk.use).carrier)
        end

        private

        def way
          ways = Core::Mix::Way::ALL
          return ways[@said] || ways["active"] if @unit.empty?

          Core::Mix::Way.typed(@unit) || refuse("is in no unit known here")
        end

        def number
          Core::Decimal.read(@digits, comma: @desk.units.comma) ||
            refuse(Core::Decimal.complaint(@digits, "is not a number"))
        end

        def refuse(words) = raise(Core::BadInput.new(words, field: :target))
      end
    end
  end
end
