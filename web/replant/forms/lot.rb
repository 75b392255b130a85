# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      module Forms
        # A lot of seed as its tag says it, or as it was gathered.
        class Lot < Form
          class Fields < Form::Contract
            params do
              required(:native).filled(:string, included_in?: Core::Knowledge.shipped.palette.keys)
              required(:name).filled(:string, max_size?: 120)
              required(:grams).filled(:float, gt?: 0, lteq?: 10_000_000)
              optional(:cleaned).filled(:bool)
              optional(:purity).filled(:float, gt?: 0, lteq?: 100)
              optional(:germination).filled(:float, gt?: 0, lteq?: 100)
              optional(:dormant).filled(:float, gteq?: 0, lteq?: 100)
              optional(:origin).filled(:string, max_size?: 120)
              optional(:origin_region).filled(:string, included_in?: Core::Knowledge.shipped.region_names.keys)
              optional(:supplier).filled(:string, max_size?: 120)
              optional(:tested_on).filled(:date)
              optional(:gathered_on).filled(:date)
              optional(:cost).filled(:float, gteq?: 0, lteq?: 100_000)
            end
            %i[tested_on gathered_on].each do |name|
              rule(name) do
                later = value.is_a?(Date) && value > today
                key.failure("is in the future: today is #{Web::Words.full_day(today)}") if later
              end
            end
            rule(:purity, :germination).validate(:both_or_neither)
            rule(:dormant, :germination) do
              dormant, sprouts = values[:dormant], values[:germination]
              key(:dormant).failure("needs the germination beside it") if dormant && !sprouts
              over = dormant && sprouts && dormant + sprouts > 100
              key(:dormant).failure("and germination are over 100 % together") if over
            end
          end

          def self.of(lot, units, today)
            plain = lot.values.slice(:name, :cleaned, :tested_on, :gathered_on, :origin, :origin_region, :supplier)
            shares = lot.values.slice(:purity, :germination, :dormant).compact.transform_values do |one|
              (one * 100).round(1)
            end
            cost = lot.cost_g && (lot.cost_g * units.to_si(:mass, 1.0)).round(4)
            grams = units.from_si(:mass, lot.grams).round(2)
            new(typed({ **plain, **shares, cost:, grams:, native: lot.native_key }), units:, today:)
          end

          def columns
            { native_key: values[:native], name: values[:name], cleaned: values.fetch(:cleaned, true),
              purity: share(:purity), germination: share(:germination), dormant: share(:dormant),
              **%i[origin origin_region supplier].to_h { |name| [name, values[name]] }, tested_on: values[:tested_on],
              gathered_on: values[:gathered_on], grams: si(:grams, :mass),
              cost_g: values[:cost] && (values[:cost] / units.to_si(:mass, 1.0)) }
          end

          private

          def share(field) = values[field] && (values[field] / 100.0)
        end
      end
    end
  end
end
