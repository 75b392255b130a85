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
          start = @property.way_in || [@property.longitude, @property.latitude]
          plane = Core::Survey::Plane.around(*start)
          places = ripe.map { |one| Core::Work::Walk::Place.new(id: one.id, at: plane.point(*one.position)) }
          Core::Work::Walk.new(plane.point(*start), places)
        end
      end
    end
  end
end
