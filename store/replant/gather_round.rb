# frozen_string_literal: true

module Thistle
  module Store
    # Reading: the walk past the places of a property whose natives are ripe on a day, from the way in and back.
    class GatherRound
      MOST = 60 # places of one walk
      Stop = Core::Value.define(:place, :window)

      # windows: {native key => Core::Replant::Gathering::Window}.
      def initialize(property, windows, on)
        @property, @windows, @on = property, windows, on
      end

      # [Stop] in the order in which they are walked.
      def stops
        by_id = ripe.to_h { |place| [place.id, place] }
        walk.order.map { |one| by_id.fetch(one.id) }
            .map { |place| Stop.new(place:, window: @windows.fetch(place.native_key)) }
      end

      def metres = walk.metres

      private

      def ripe
        @ripe ||= GatherPlace.live.where(property_id: @property.id).order(:id).limit(MOST).all.select do |place|
          window = @windows[place.native_key]
          window && @on.between?(window.from, window.to)
        end
      end

      def walk
        @walk ||= begin
          plane = Core::Survey::Plane.around(*way_in)
          places = ripe.map { |one| Core::Work::Walk::Place.new(id: one.id, at: plane.point(*one.position)) }
          Core::Work::Walk.new(plane.point(*way_in), places)
        end
      end

      # The gate or road, else the first trail's end, else the property's middle.
      def way_in
        @way_in ||= begin
          zone = @property.zones_of("access").first || @property.zones_of("trail").first
          zone ? zone.shape.positions.first : [@property.longitude, @property.latitude]
        end
      end
    end
  end
end
