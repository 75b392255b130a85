# frozen_string_literal: true

module Thistle
  module Core
    module Survey
      # What usually goes with a place (knowledge/homes.yml): the region of the library, the climate where it is another
      # than the region's, the clock, the units; nil of what nobody can say from the place alone.
      class Home
        FAR_FROM_SUN = 3.5 # hours that no clock is away from the sun at a place that goes by it (memory)

        attr_reader :whereabouts

        # whereabouts: Borders::Whereabouts; at: [longitude, latitude].
        def initialize(whereabouts, at, homes: Knowledge.shipped.homes)
          @whereabouts, @at, @told = whereabouts, at, homes.fetch(whereabouts.country, {})
        end

        def units = @told["units"]
        def region = @told["region"] || by_part("regions")
        def clock = @told["clock"] || by_part("clocks")

        # A key of climates.yml; nil where the region's own year is meant, and where nobody can say.
        def climate
          @told.fetch("climates", []).find { |row| holds?(row) }&.fetch("climate")
        end

        # Hours that a clock is ahead of the sun at a longitude, where that cannot be; nil where it can.
        def self.odd_hours(clock, longitude)
          ahead = (Season::Clock.new(clock).standard_offset(Date.new(2000, 1, 1)) / 3600.0) - (longitude / 15.0)
          ahead = ((ahead + 12) % 24) - 12
          ahead.abs > FAR_FROM_SUN ? ahead.round : nil
        end

        private

        SIDES = { "north_of" => [1, 1], "south_of" => [1, -1], "east_of" => [0, 1], "west_of" => [0, -1] }.freeze
        private_constant :SIDES

        # Does the place lie in the parts and on the sides that a row names?
        def holds?(row)
          return false if row["parts"] && !row["parts"].include?(whereabouts.part)

          SIDES.all? { |side, (axis, sign)| row[side].nil? || ((@at[axis] - row[side]) * sign).positive? }
        end

        def by_part(name) = @told.fetch(name, {}).find { |_, parts| parts.include?(whereabouts.part) }&.first
      end
    end
  end
end
