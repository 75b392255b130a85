# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Forms
        # Where a property lies and what its new patches are called, as they can be put right later.
        class Place < Form
          class Fields < Form::Contract
            option :property

            params do
              required(:prefix).filled(:string, format?: /\A[A-Za-z]{1,4}\z/)
              required(:latitude).filled(:float, gteq?: -85, lteq?: 85)
              required(:longitude).filled(:float, gteq?: -180, lteq?: 180)
              optional(:elevation).filled(:float, gteq?: -450, lteq?: 30_000)
              optional(:timezone).filled(:string)
            end
            rule(:timezone).validate(:clock)
            rule(:prefix) do
              other = Store::Property.exclude(id: property.id).first(prefix: value.upcase)
              key.failure("is taken by another property") if other
            end
            rule(:timezone, :longitude) do
              odd = Property.odd(*values.values_at(:timezone, :longitude))
              key(:longitude).failure(odd) if odd
            end
          end

          def self.of(property, today)
            typed = property.values.slice(:prefix, :latitude, :longitude, :timezone).compact
            height = property.measures.from_si(:length, property.elevation_m)&.round
            typed[:elevation] = height if height
            untouched(typed.to_h { |name, value| [name.to_s, value.to_s] }, units: property.measures, today:, property:)
          end

          def self.untouched(known, units:, today:, property:)
            new(known, units:, today:, property:).tap { |form| form.errors.clear }
          end

          def initialize(params, units:, today:, property:)
            @property = property
            super
          end

          # True when the property lies there; false with errors.
          def store
            return false unless ok?

            @property.db.transaction do
              @property.update(prefix: values[:prefix].upcase, timezone: values[:timezone])
              @property.move(latitude: values[:latitude], longitude: values[:longitude],
                             elevation_m: si(:elevation, :length))
            end
            true
          end
        end
      end
    end
  end
end
