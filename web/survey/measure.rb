# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      # What a shape that is being drawn measures, or what is wrong with it and which shape would do.
      class Measure
        MOST = 1000 # of a width or a radius, as typed

        attr_reader :shape, :ground, :error, :repaired, :units

        def initialize(params, units, property)
          @units, @property = units, property
          @width, @radius = %w[width radius].map { |key| length(params[key]) }
          @cover, @own = params["cover_class"].to_s, Whole.read(params["own"])
          @shape = Core::Survey::Shape.parse(params["geometry"])
          @ground = Core::Survey::Overlay.ground(@shape, width: @width, radius: @radius) || @shape
        rescue Core::Survey::Shape::Crossed => e
          @error, @repaired = e.message, e.repaired && JSON.generate(e.repaired)
        rescue Core::BadInput => e
          @error = e.message
        end

        def gross = shape.gross_area(width: @width, radius: @radius)
        def infested = Core::Survey::Cover.infested(gross, @cover.empty? ? nil : @cover)
        def water = surroundings.of(shape, width_m: @width, radius_m: @radius).first[:water_m]

        # {patch: m²} of the patches whose ground it shares.
        def overlaps
          return {} unless ground.kind == "polygon"

          @property.live_patches.within(ground.bounds).exclude(state: "closed").exclude(id: @own).limit(40)
                   .to_h do |patch|
            [patch, patch.ground ? Core::Survey::Overlay.shared(ground, patch.ground) : 0.0]
          end.select { |_, m2| m2 > 0.05 }
        end

        def zones = surroundings.all(ground).first(3)

        private

        # Metres; nil for what is no length yet.
        def length(text)
          typed = Core::Decimal.read(text, comma: :decimal)
          return unless typed&.positive?
          raise Core::BadInput, "A width or a radius is #{MOST} at most." if typed > MOST

          units.to_si(:length, typed)
        end

        def surroundings = @surroundings ||= Store::Surroundings.new(@property)
      end
    end
  end
end
