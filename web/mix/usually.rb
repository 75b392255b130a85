# frozen_string_literal: true

require "forwardable"

module Thistle
  module Web
    module Mix
      # What stands in a field of the bench that nobody typed: by the label, the patch and its records, else a planning
      # value. One at a time, since they rest on each other.
      class Usually
        extend Forwardable

        FIELDS = { "product" => :product_key, "stock" => :stock, "said" => :said, "said2" => :said2,
                   "target" => :target, "target2" => :target2, "stems" => :counted, "dose" => :dose, "rate" => :rate,
                   "area" => :area, "container" => :container }.freeze

        def_delegators :@desk, :product, :second, :units, :vessel, :removal, :facts, :usage, :value

        def initialize(desk)
          @desk = desk
          @found = Hash.new { |all, field| all[field] = FIELDS.key?(field) ? plain(send(FIELDS[field])) : "" }
        end

        # As it would be typed; "" for what nobody knows.
        def [](field) = @found[field]

        private

        def plain(found) = found.to_s.delete_suffix(".0")
        def product_key = product.id || product.main.key
        def stock = product.main.percent
        def said = counted_as(product)
        def said2 = counted_as(second)
        def target = usual(product, value("said"))
        def target2 = (usual(second, value("said2")) if second)
        def area = units.from_si(:area, facts&.area_m2 || 100).round(1)
        def container = units.from_si(:volume, vessel == "jar" ? 500 : 15_000).round(1)

        # Labels say percent of product, or a rate on the ground; planning values are percent of active.
        def counted_as(product)
          return "active" unless product&.labelled?
          return product.dry? ? "grams" : "product" unless rate_of(product)

          { true => %w[oz_ac g_ha], false => %w[floz_ac l_ha] }.fetch(product.dry?)[units.us? ? 0 : 1]
        end

        # mL (g of a dry one) on a hectare where the label has a rate alone, and there is ground for it; else nil.
        def rate_of(product)
          use = product.use(@desk.use)
          return if vessel != "tank" || use.nil? || use.low || use.high

          use.rate_low || use.rate_high
        end

        # What the label says for this use, the least of it; planning values where it says nothing.
        def usual(product, said)
          rate = rate_of(product)
          spray = @desk.spray if rate
          share = spray ? rate / 1000 / spray : product.usual_percent(removal) / 100.0
          way = Core::Mix::Way::ALL.key?(said) ? said : "active"
          Core::Mix::Strength.new([share, 1.0].min, product, spray: @desk.spray, carrier: product.on(@desk.use).carrier)
                             .in(way)&.round(3)
        end

        # Stems counted, else as many as the plants likely have.
        def counted
          return sizes.values.sum if sizes.any?

          facts && (facts.plants || facts.stems) ? Core::Decide::Effort.new(removal, facts).stems.round : 40
        end

        # In mL or fl oz a stem: of stems counted by size the mean over all of them; else by the patch's size what the
        # group's records say, or a planning value.
        def dose
          ml = sizes.any? ? sizes.sum { |size, n| n * removal.dose_ml[size] } / sizes.values.sum.to_f : usage&.median
          units.from_si(:volume, ml || 1).round(3)
        end

        # {size => stems} counted on the patch, of those sizes that the method has a dose for.
        def sizes
          @sizes ||= (facts&.sizes || {}).transform_keys(&:to_s)
                                         .select { |size, n| n.to_i.positive? && removal.dose_ml.key?(size) }
        end

        # What a calibrated sprayer puts on 100 m², else what the group's records say, else a planning value.
        def rate
          own = usage.median / 1000 if usage&.own?
          units.from_si(:rate, @desk.calibrated || own || removal.spray_l_per_100m2 || 5).round(2)
        end
      end
    end
  end
end
