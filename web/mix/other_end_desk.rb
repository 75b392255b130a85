# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      # Questions from the other end: what is in this jar, how much carrier brings it down, how far does this much go.
      class OtherEndDesk
        include Numbers

        attr_reader :errors, :units, :product

        def initialize(params, units, product)
          @params, @units, @product, @errors = params, units, product, {}
        end

        def [](field) = @params[field.to_s].is_a?(String) ? @params[field.to_s].strip : ""
        def value(field) = self[field]
        def error(field) = errors[field.to_sym]

        # The Strength of a jar of so much product and carrier; nil until both are typed.
        def poured
          product_ml, carrier_ml = volume_typed("product_poured"), volume_typed("carrier_poured")
          return unless product_ml && carrier_ml

          complaining { Core::Mix::Strength.new(Core::Mix::Inverse.share(product_ml, carrier_ml), product) }
        end

        # mL of carrier to add; nil until it is all typed.
        def to_add
          have, from, to = volume_typed("have"), percent_typed("from"), percent_typed("down_to")
          complaining { Core::Mix::Inverse.thin(have, from, to) } if have && from && to
        end

        # mL of ready mix that so much product makes, at a percent of product; nil until it is typed.
        def reach
          have, percent = volume_typed("product_have"), percent_typed("percent")
          Core::Mix::Inverse.reach(have, percent / 100) if have && percent
        end

        # How many stems that does at a dose.
        def stems
          dose = volume_typed("dose")
          (reach / dose / Core::Mix::Need::SPARE).floor if dose&.positive? && reach
        end

        # What carries it, of all its uses: "water or bark oil".
        def carrier = product.carriers.join(" or ")

        private

        # A percent that a mix can have; nil with a complaint for any other.
        def percent_typed(field)
          percent = number_typed(field) or return
          return percent if percent.positive? && percent <= 100

          errors[field.to_sym] = "is above 0 and at most 100"
          nil
        end
      end
    end
  end
end
