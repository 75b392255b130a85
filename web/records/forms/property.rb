# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Forms
        # A new property: its name, where it is, what its year hangs on. Its boundary or a point is drawn, typed or
        # comes in a file; what usually goes with such a place stands where nothing else is said. What is not known is
        # said to be broad.
        class Property < Survey::Forms::Drawn
          class Fields < Form::Contract
            params do
              required(:name).filled(:string, max_size?: 120)
              optional(:prefix).filled(:string, format?: /\A[A-Za-z]{1,4}\z/)
              optional(:units).filled(:string, included_in?: Core::Units::SYSTEMS)
              required(:texture).filled(:string, included_in?: Core::Knowledge.shipped.soils.keys)
              optional(:region).filled(:string, included_in?: Core::Knowledge.shipped.region_names.keys)
              optional(:climate_kind).filled(:string, included_in?: Core::Knowledge.shipped.climates.keys)
              optional(:geometry).filled(:string)
              optional(:latitude).filled(:float, gteq?: -85, lteq?: 85)
              optional(:longitude).filled(:float, gteq?: -180, lteq?: 180)
              optional(:elevation).filled(:float, gteq?: -450, lteq?: 30_000)
              optional(:timezone).filled(:string)
            end
            rule(:timezone).validate(:clock)
            rule(:prefix) do
              key.failure("is taken by another property") if value && Store::Property.first(prefix: value.upcase)
            end
            rule(:latitude, :longitude).validate(:both_or_neither)
            rule(:timezone, :longitude) do
              odd = Property.odd(*values.values_at(:timezone, :longitude))
              key(:longitude).failure(odd) if odd
            end
          end

          # What does not fit between a clock and a longitude; nil where nothing speaks against them.
          def self.odd(clock, longitude)
            return unless clock && longitude && Core::Season::Clock.known?(clock)

            hours = Core::Survey::Home.odd_hours(clock, longitude) or return
            "is #{Words.count(hours.abs, "hour")} of sun away from the clock #{clock}. Is a minus missing, or is it " \
              "another clock?"
          end

          # shapes: [Core::Survey::Shape] that a file brought.
          def initialize(params, units:, today:, shapes: [])
            super(params, units:, today:)
            @shapes = shapes
          end

          # The stored property, or nil with errors.
          def store
            shape = drawn
            errors[:region] ||= "or a position is needed" unless values[:region] || placed?
            errors[:climate_kind] ||= "is needed: it does not follow from this place" if ok? && !climate?
            return unless ok?

            property = Store::Property.db.transaction do
              Store::Property.create(**columns).tap do |made|
                Store::Zone.draw(made, shape, kind: "boundary") if shape&.area&.positive?
              end
            end
            property.refresh
          end

          # What usually goes with the place, or nil where no place is said.
          def home
            return unless position

            @home ||= Store::Whereabouts.home(*position.reverse, height: si(:elevation, :length))
          end

          # [latitude, longitude] as typed, else the middle of what was drawn or brought; nil for neither.
          def position
            typed = values.values_at(:latitude, :longitude)
            return typed if typed.all?(Float)

            drawn&.centre&.reverse
          end

          # Is it known what the year hangs on: said, or told by the weather around, or usual in the region?
          def climate?
            return true if values[:climate_kind]

            home&.around ? !home.climate.nil? : [values[:region], home&.climate, home&.region].any?
          end

          private

          # Is any place said, right or wrong?
          def placed? = @shapes.any? || %w[geometry latitude].any? { |name| !self[name].to_s.empty? }

          # The boundary, or the point, that was drawn or came in a file; nil for none.
          def drawn
            return @drawn if defined?(@drawn)

            text = self["geometry"].to_s
            @drawn = text.empty? ? @shapes.max_by(&:area) : read_shape
          end

          def columns
            of = hangs_on
            latitude, longitude = position || Core::Season::BroadWeather.middle(**of)
            { name: values[:name], prefix: values[:prefix]&.upcase || letters, texture: values[:texture],
              units: values[:units] || home&.units || "metric", region: of[:region], climate_kind: of[:climate],
              timezone: values[:timezone] || home&.clock, latitude:, longitude:, placed: !position.nil?, feed: "broad",
              station_seed: values[:name].sum, elevation_m: si(:elevation, :length),
              climate: usual_weather(of), record_rule: home&.rule }
          end

          def usual_weather(of)
            return Store::Whereabouts.weather(*position.reverse, height: si(:elevation, :length), **of) if position

            latitude, = Core::Season::BroadWeather.middle(**of)
            JSON.generate(Core::Season::BroadWeather.climate(latitude, **of))
          end

          # What its year hangs on: as said, else as usual at the place.
          def hangs_on
            { region: values[:region] || home&.region, climate: values[:climate_kind] || home&.climate }
          end

          # The first letters of its name that no other property has: "Quillback Hollow" is Q, QH, QU …
          def letters
            plain = values[:name].unicode_normalize(:nfd).gsub(/[^A-Za-z ]/, "").upcase
            words = plain.split
            tries = [words.first&.[](0), words.first(4).map { |word| word[0] }.join, words.first&.[](0, 2),
                     words.first&.[](0, 3), *"AA".."ZZ"]
            taken = Store::Property.select_map(:prefix)
            tries.compact.reject(&:empty?).find { |one| !taken.include?(one) }
          end
        end
      end
    end
  end
end
