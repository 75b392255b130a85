# frozen_string_literal: true

module Thistle
  module Core
    module Survey
      # What usually goes with a place (knowledge/homes.yml): the region of the library, the climate where it is another
      # than the region's, the clock, the units; nil of what nobody can say from the place alone.
      class Home
        FAR_FROM_SUN = 3.5 # hours that no clock is away from the sun at a place that goes by it (memory)

        attr_reader :whereabouts

        # whereabouts: Borders::Whereabouts; at: [longitude, latitude]; height: m; sea: is it in sight? nil for not
        # known.
        def initialize(whereabouts, at, height: nil, sea: nil, homes: Knowledge.shipped.homes)
          @whereabouts, @at, @height, @sea = whereabouts, at, height, sea
          @told = homes.fetch(whereabouts.country, {})
        end

        def units = @told["units"]
        # A key of records.yml.
        def rule = @told["rule"]
        def region = @told["region"] || by_place("region")

        # The name of its clock.
        def clock
          @told["clock"] || @told.fetch("clocks", {}).find { |_, parts| parts.include?(whereabouts.part) }&.first
        end

        # A key of climates.yml: by the file, where the year is another than the weather around says, else by that; nil
        # where none fits and where nobody can say.
        def climate = by_place("climate") || (around && fitting(Season::Climate.months(around)))

        # What its year is made of, by the places around; nil where none is near.
        def around
          @around ||= Season::Normals.shipped.at(@at.last, @at.first, height: @height, sea: @sea)
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

        def fitting(months) = (Season::Climate.of(months).key if Season::Climate.fits?(months))
        def by_place(name) = @told.fetch("#{name}s", []).find { |row| holds?(row) }&.fetch(name)
      end
    end
  end
end
