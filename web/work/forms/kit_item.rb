# frozen_string_literal: true

module Thistle
  module Web
    module Work
      module Forms
        # Tools of one kind: how many, and how they are.
        class KitItem < Form
          FIELDS = %i[kind name owned broken lent lent_to sharpen_on tested_on note].freeze

          class Fields < Form::Contract
            params do
              required(:kind).filled(:string, included_in?: Core::Knowledge.shipped.kit.keys)
              required(:name).filled(:string, max_size?: 80)
              required(:owned).filled(:integer, gteq?: 0, lteq?: 1000)
              optional(:broken).filled(:integer, gteq?: 0, lteq?: 1000)
              optional(:lent).filled(:integer, gteq?: 0, lteq?: 1000)
              optional(:lent_to).filled(:string, max_size?: 80)
              optional(:sharpen_on).filled(:date)
              optional(:tested_on).filled(:date)
              optional(:note).filled(:string, max_size?: 400)
            end
            rule(:owned, :broken, :lent) do
              away = values[:broken].to_i + values[:lent].to_i
              key(:owned).failure("is less than what is broken and lent") if values[:owned] < away
            end
            rule(:tested_on) { key.failure("is in the future") if value && value > today }
            rule(:sharpen_on) { key.failure("is no year of ours") if value && !value.year.between?(2000, 2100) }
          end

          def self.of(item, units, today)
            new(typed(item.values.slice(*FIELDS)), units:, today:)
          end

          # The stored item, new or changed, or nil with errors.
          def store(item = Store::KitItem.new)
            return unless ok?

            item.set(FIELDS.to_h { |name| [name, values[name]] })
            item.set(broken: values[:broken].to_i, lent: values[:lent].to_i)
            item.save
          end
        end
      end
    end
  end
end
