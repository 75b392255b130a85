# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      module Forms
        # Which native at what price and wage, for spacing against weeding.
        class Spacing < Form
          class Fields < Form::Contract
            params do
              required(:native).filled(:string, included_in?: Core::Knowledge.shipped.palette.keys)
              required(:price).filled(:float, gteq?: 0, lteq?: 100_000)
              required(:wage).filled(:float, gteq?: 0, lteq?: 100_000)
              required(:survives).filled(:float, gt?: 0, lteq?: 100)
            end
          end

          # As asked in an address; planning values for the rest.
          def self.asked(params, wage, units:, today:)
            key = params["native"].to_s
            native = Core::Knowledge.shipped.palette[key] || Core::Knowledge.shipped.native("golden_ragwort")
            row = Core::Knowledge.shipped.stock.fetch(Core::Replant::Stock.of(native))
            plain = typed({ native: native.key, price: row["price"] || 4.0, wage:, survives: lives(native) })
            new({ **plain, **params.slice("native", "price", "wage", "survives") }, units:, today:)
          end

          # Percent that live, by the group's own counts of it where there are any, else as planned.
          def self.lives(native)
            counts = %i[spring autumn].map { |season| Store::SurvivorCount.learned.fetch([native.key, season], [0, 0]) }
            stock = Core::Replant::Stock.of(native)
            others = counts.transpose.map(&:sum)
            (Core::Replant::Establishment.survival(stock, alive: 0, counted: 0, others:).mean * 100).round
          end
          private_class_method :lives

          def native = Core::Knowledge.shipped.native(values[:native])

          # The Core::Replant::Closing; nil while something is wrong.
          def closing
            return unless ok?

            Core::Replant::Closing.new(width_m: native.width_cm / 100.0, spreads: native.spreads, price: values[:price],
                                       wage: values[:wage], survives: values[:survives] / 100.0)
          end
        end
      end
    end
  end
end
