# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      module Forms
        # A patch looked at again: how much stands there now, and perhaps a new shape.
        class Again < Drawn
          include Amounts

          class Fields < Form::Contract
            params(Amounts::SCHEMA) do
              required(:seen_on).filled(:date)
              optional(:geometry).filled(:string)
              optional(:people).filled(:string, max_size?: 400)
              optional(:note).filled(:string, max_size?: 2000)
            end
            rule(:seen_on).validate(:day_of_record)
          end

          # True once stored.
          def store(patch)
            shape = self["geometry"] ? read_shape : nil
            if amount.to_h.compact.empty? && !self["geometry"] && ok?
              errors[:base] = "Say what you saw: a shape, a cover, a count."
            end
            errors[:infested] = "is more than the ground it stands on" if more_than_gross?(patch, shape)
            return false unless ok?

            shape = nil if shape&.published == patch.shape.published
            Store::Reshape.new(patch).look_again(amount:, shape:, **values.slice(:seen_on, :people, :note))
          end

          private

          def more_than_gross?(patch, shape)
            gross = shape ? shape.gross_area(width: patch.width_m, radius: patch.radius_m) : patch.gross_m2
            infested = si(:infested, :area)
            gross && infested && infested > gross * 1.001
          end
        end
      end
    end
  end
end
