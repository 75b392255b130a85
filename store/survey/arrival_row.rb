# frozen_string_literal: true

module Thistle
  module Store
    # Model: one row of a file, as read or as somebody put it right, and what happens to it.
    class ArrivalRow < Sequel::Model(:arrival_rows)
      many_to_one :arrival, class: "Thistle::Store::Arrival"
      many_to_one :patch, class: "Thistle::Store::Patch"

      def cells = JSON.parse(properties || "{}")
      def put_right? = !was.nil?

      # What was read, where it is another now: {column => text}.
      def cells_read = was ? JSON.parse(JSON.parse(was).fetch("properties")) : {}

      # [longitude, latitude] of a row that is a point; nil of another shape, and without one.
      def point
        shape = geometry && JSON.parse(geometry)
        shape["coordinates"].first(2) if shape && shape["type"] == "Point"
      end

      # May its place be typed? A line or an area is drawn, not typed; a record lies where its patch does.
      def placeable? = kind == "patch" && (geometry.nil? || !point.nil?)

      # Puts other texts into its cells, and another place where one is said: [longitude, latitude]. What was read stays
      # beside.
      def put_right(cells, place = nil)
        read = was || JSON.generate(properties:, geometry:)
        geometry = place ? JSON.generate("type" => "Point", "coordinates" => place) : self.geometry
        update(properties: JSON.generate(self.cells.merge(cells)), geometry:, was: read)
      end

      # As it was read.
      def as_read
        was && update(**JSON.parse(was, symbolize_names: true), was: nil)
      end
    end
  end
end
