# frozen_string_literal: true

module Thistle
  module Web
    module Season
      module Forms
        # What the label of the product in use says of the weather. Empty fields leave the planning values.
        class Label < Form
          KINDS = %w[foliar stem basal].freeze

          class Fields < Form::Contract
            params do
              required(:kind).filled(:string, included_in?: KINDS)
              optional(:product).filled(:string, max_size?: 120)
              optional(:wind_low).filled(:float, gteq?: 0, lteq?: 100)
              optional(:wind_high).filled(:float, gteq?: 0, lteq?: 100)
              optional(:gust).filled(:float, gteq?: 0, lteq?: 150)
              optional(:temperature_low).filled(:float, gteq?: -40, lteq?: 130)
              optional(:temperature_high).filled(:float, gteq?: -40, lteq?: 130)
              optional(:rainfast_h).filled(:float, gteq?: 0, lteq?: 72)
            end
            %i[wind temperature].each do |name|
              rule(:"#{name}_high", :"#{name}_low") do
                low, high = values[:"#{name}_low"], values[:"#{name}_high"]
                key(:"#{name}_high").failure("is below the lowest") if low && high && high < low
              end
            end
          end

          def self.of(label, kind, units, today)
            typed = { "kind" => kind, "product" => label&.product, "rainfast_h" => label&.rainfast_h }
            %i[wind_low wind_high gust].each do |name|
              typed[name] = units.from_si(:wind, label&.public_send(name))&.round
            end
            %i[temperature_low temperature_high].each do |name|
              typed[name] = units.from_celsius(label&.public_send(name))&.round
            end
            new(typed.compact.transform_values { |value| value.to_s.delete_suffix(".0") }, units:, today:)
          end

          def store(property)
            return unless ok?

            winds = %i[wind_low wind_high gust].to_h { |name| [name, si(name, :wind)] }
            warmth = %i[temperature_low temperature_high].to_h { |name| [name, units.to_celsius(values[name])] }
            product, rainfast_h = values.values_at(:product, :rainfast_h)
            Store::Label.keep(property, values[:kind], product:, rainfast_h:, **winds, **warmth)
            true
          end
        end
      end
    end
  end
end
