# frozen_string_literal: true

module Thistle
  module Web
    module Forms
      # A patch looked at again: how much stands there now, and perhaps a new shape.
      class Again < Drawn
        class Fields < Form::Contract
          params do
            required(:seen_on).filled(:date)
            optional(:geometry).filled(:string)
            optional(:cover_class).filled(:integer, gteq?: 1, lteq?: 6)
            optional(:cover_percent).filled(:float, gteq?: 0, lteq?: 100)
            optional(:density).filled(:float, gteq?: 0, lteq?: 10_000)
            optional(:infested).filled(:float, gteq?: 0)
            optional(:height).filled(:float, gt?: 0, lteq?: 10_000)
            optional(:stage).filled(:string, included_in?: Core::Season::Phenology::STAGES.map(&:to_s))
            Core::Removal::SIZES.each { |size| optional(:"stems_#{size}").filled(:integer, gteq?: 0, lteq?: 1_000_000) }
            optional(:people).filled(:string, max_size?: 400)
            optional(:note).filled(:string, max_size?: 2000)
          end
          rule(:seen_on).validate(:day_of_record)
        end

        # True once stored.
        def store(patch)
          shape = self["geometry"] ? read_shape : nil
          errors[:base] = "Say what you saw: a shape, a cover, a count." if amount.to_h.compact.empty? && !self["geometry"] && ok?
          errors[:infested] = "is more than the ground it stands on" if more_than_gross?(patch, shape)
          return false unless ok?

          shape = nil if shape&.published == patch.shape.published
          Store::Reshape.new(patch).look_again(amount:, shape:, **values.slice(:seen_on, :people, :note))
        end

        private

        def amount
          counted = Core::Removal::SIZES.to_h { |size| [size, values[:"stems_#{size}"]] }.compact
          Core::Survey::Amount.new(infested_m2: si(:infested, :area), cover_class: values[:cover_class], cover_percent: values[:cover_percent],
                                   density_m2: values[:density], height_cm: values[:height], stage: values[:stage],
                                   stems: counted.empty? ? nil : counted)
        end

        def more_than_gross?(patch, shape)
          gross = shape ? shape.gross_area(width: patch.width_m, radius: patch.radius_m) : patch.gross_m2
          infested = si(:infested, :area)
          gross && infested && infested > gross * 1.001
        end
      end
    end
  end
end
