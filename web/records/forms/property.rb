# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Forms
        # A new property: its name, where it is, what its year hangs on. What is not known is said to be broad.
        class Property < Form
          class Fields < Form::Contract
            params do
              required(:name).filled(:string, max_size?: 120)
              required(:prefix).filled(:string, format?: /\A[A-Za-z]{1,4}\z/)
              required(:units).filled(:string, included_in?: Core::Units::SYSTEMS)
              required(:texture).filled(:string, included_in?: Core::Knowledge.shipped.soils.keys)
              optional(:region).filled(:string, included_in?: Core::Identify::Regions::NAMES.keys)
              optional(:climate_kind).filled(:string, included_in?: Core::Knowledge.shipped.climates.keys)
              optional(:latitude).filled(:float, gteq?: -85, lteq?: 85)
              optional(:longitude).filled(:float, gteq?: -180, lteq?: 180)
              optional(:elevation).filled(:float, gteq?: -450, lteq?: 30_000)
              optional(:timezone).filled(:string)
            end
            rule(:timezone).validate(:clock)
            rule(:prefix) { key.failure("is taken by another property") if Store::Property.first(prefix: value.upcase) }
            rule(:latitude, :longitude).validate(:both_or_neither)
            rule(:region, :latitude) do
              key(:region).failure("or a position is needed") unless values[:region] || values[:latitude]
            end
          end

          # The stored property, or nil with errors.
          def store
            return unless ok?

            of = { region: values[:region], climate: values[:climate_kind] }
            said = values.values_at(:latitude, :longitude)
            latitude, longitude = said.first ? said : Core::Season::BroadWeather.middle(**of)
            climate = JSON.generate(Core::Season::BroadWeather.climate(latitude, **of))
            worked_out = { placed: !said.first.nil?, feed: "broad", station_seed: values[:prefix].sum, climate:,
                           prefix: values[:prefix].upcase, elevation_m: si(:elevation, :length) }
            Store::Property.create(**values.except(:elevation), **worked_out, latitude:, longitude:)
          end
        end
      end
    end
  end
end
