# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      # Questions from the other end: what is in this jar, how much carrier brings it down, how far does this much go.
      class OtherEndDesk
        attr_reader :errors, :units, :product

        def initialize(params, units, product)
          @params, @units, @product, @errors = params, units, product, {}
        end

        def [](field) = @params[field.to_s].is_a?(String) ? @params[field.to_s].strip : ""
        def error(field) = errors[field.to_sym]

        # The Strength of a jar of so much product and carrier; nil until both are typed.
        def poured
          product_ml, carrier_ml = volume("product_poured"), volume("carrier_poured")
          return unless product_ml && carrier_ml

          read { Core::Mix::Strength.new(Core::Mix::Inverse.share(product_ml, carrier_ml), product.main) }
        end

        # mL of carrier to add; nil until it is all typed.
        def to_add
          have, from, to = volume("have"), number("from"), number("down_to")
          read { Core::Mix::Inverse.thin(have, from, to) } if have && from && to
        end

        # mL of ready mix that so much product makes, at a percent of product; nil until it is typed.
        def reach
          have, percent = volume("product_have"), number("percent")
          return unless have && percent
          return Core::Mix::Inverse.reach(have, percent / 100) if percent.positive? && percent <= 100

          errors[:percent] = "is above 0 and at most 100"
          nil
        end

        # How many stems that does at a dose.
        def stems
          dose = volume("dose")
          (reach / dose / Core::Mix::Need::SPARE).floor if dose&.positive? && reach
        end

        private

        def read
          yield
        rescue Core::BadInput => e
          errors[e.field] = e.message
          nil
        end

        def volume(field)
          text = self[field]
          return if text.empty?

          found = read { Core::Mix::Typed.volume(text, unit: units.unit(:volume), field: field.to_sym) }
          found.tap { errors[field.to_sym] ||= "is not a number" unless found }
        end

        def number(field)
          text = self[field]
          return if text.empty?

          Core::Decimal.read(text).tap { |found| errors[field.to_sym] = "is not a number" unless found }
        end
      end
    end
  end
end
