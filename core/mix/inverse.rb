# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # Questions asked from the other end: what is in this jar, what brings it down, how far does it go.
      module Inverse
        module_function

        # Share of product in a jar of so much product and so much carrier, mL. Raises BadInput (field :poured).
        def share(product_ml, carrier_ml)
          unless product_ml.positive? && !carrier_ml.negative?
            raise BadInput.new("Say how much product and how much carrier went in.", field: :poured)
          end

          product_ml.to_f / (product_ml + carrier_ml)
        end

        # mL of carrier that bring so much mix from one strength down to another, both counted alike. Raises BadInput
        # (field :have or :down_to) for one that is not weaker.
        def thin(have_ml, from, to)
          raise BadInput.new("Say how much there is.", field: :have) unless have_ml.positive?
          unless to.positive? && to <= from
            raise BadInput.new("Carrier only makes it weaker: type a strength of #{Product.short(from)} or less.",
                               field: :down_to)
          end

          have_ml * ((from.to_f / to) - 1)
        end

        # mL of ready mix that so much product makes at a share of the volume.
        def reach(product_ml, share) = product_ml / share
      end
    end
  end
end
