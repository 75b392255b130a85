# frozen_string_literal: true

module Thistle
  module Core
    module Survey
      # What usually goes with a place (knowledge/homes.yml): the region of the library, the clock, the units; nil of
      # what nobody can say from the place alone.
      class Home
        FAR_FROM_SUN = 3.5 # hours that no clock is away from the sun at a place that goes by it (memory)

        attr_reader :whereabouts

        # whereabouts: Borders::Whereabouts.
        def initialize(whereabouts, homes: Knowledge.shipped.homes)
          @whereabouts, @told = whereabouts, homes.fetch(whereabouts.country, {})
        end

        def units = @told["units"]
        def region = @told["region"] || by_part("regions")
        def clock = @told["clock"] || by_part("clocks")

        # Hours that a clock is ahead of the sun at a longitude, where that cannot be; nil where it can.
        def self.odd_hours(clock, longitude)
          ahead = (Season::Clock.new(clock).standard_offset(Date.new(2000, 1, 1)) / 3600.0) - (longitude / 15.0)
          ahead = ((ahead + 12) % 24) - 12
          ahead.abs > FAR_FROM_SUN ? ahead.round : nil
        end

        private

        def by_part(name) = @told.fetch(name, {}).find { |_, parts| parts.include?(whereabouts.part) }&.first
      end
    end
  end
end
