# frozen_string_literal: true

module Thistle
  module Web
    module Recheck
      # Seedlings as somebody tapped or typed them, and where each most likely comes from.
      class OriginDesk
        MOST = 200
        PAIR = /(-?\d{1,2}(?:\.\d+)?)[,\s]+(-?\d{1,3}(?:\.\d+)?)/

        attr_reader :patch, :errors

        def initialize(params, patch, today)
          @params, @patch, @today, @errors = params, patch, today, {}
        end

        def [](field) = @params[field.to_s].is_a?(String) ? @params[field.to_s] : ""
        def error(field) = errors[field.to_sym]
        def repaired = nil

        # [[lon, lat]] of the seedlings.
        def points = @points ||= (drawn + typed).first(MOST)

        # [Core::Recheck::Origin::Answer]; nil until any seedling is known.
        def shares
          return if points.empty?

          @shares ||= read.origin.shares
        rescue Core::BadInput => e
          errors[:points] = e.message
          nil
        end

        # [the likeliest source's label, its probability] for each seedling.
        def likeliest
          (0...points.size).map do |n|
            best = shares.max_by { |answer| answer.of[n] }
            [best.source.label, best.of[n]]
          end
        end

        # Seedlings that no source reaches.
        def far = read.origin.far
        def years = read.years

        # The seedlings for the map.
        def marks
          points.map { |point| { geometry: { type: "Point", coordinates: point }, style: "past" } }
        end

        private

        def read = @read ||= Store::SeedlingOrigin.new(patch, points, @today)

        # A point, or the corners of a line that was drawn from seedling to seedling.
        def drawn
          return [] if self[:geometry].empty?

          Core::Survey::Shape.parse(self[:geometry]).positions.map { |position| position.first(2) }
        rescue Core::BadInput => e
          errors[:geometry] = e.message
          []
        end

        # "38.0012, -91.4003", one a line.
        def typed
          lines = self[:places].lines.map(&:strip).reject(&:empty?).first(MOST)
          found = lines.to_h { |line| [line, place(line)] }
          bad = found.key(nil) or return found.values

          errors[:places] = "hold “#{bad[0, 40]}”, which is no latitude and longitude"
          []
        end

        # [lon, lat], nil for what is none.
        def place(line)
          latitude, longitude = line.match(PAIR).to_a.drop(1).map(&:to_f)
          [longitude, latitude] if latitude && latitude.abs <= 90 && longitude.abs <= 180
        end
      end
    end
  end
end
