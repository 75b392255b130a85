# frozen_string_literal: true

module Thistle
  module Store
    # Model: ground that is not a patch: boundary, trail, water, a well, rare plants (knowledge/zones.yml has the
    # kinds).
    class Zone < Sequel::Model(:zones)
      many_to_one :property, class: "Thistle::Store::Property"

      # A zone drawn on the map; patches near it learn of it.
      def self.draw(property, shape, **fields)
        zone = new(property_id: property.id, **fields)
        zone.shape = shape
        zone.save
        zone.tell
        zone
      end

      def shape = @shape ||= Core::Survey::Shape.stored(geometry)
      def nature = Core::Knowledge.shipped.zone_kinds.fetch(kind)

      def shape=(shape)
        @shape = shape
        self.geometry = JSON.generate(shape.geometry)
        self.west, self.south, self.east, self.north = shape.bounds
      end

      # m to keep from its edge: the property's own number, else the kind's planning value.
      def distance_kept = keep_m || nature.keep_m
      def label = name || nature.label
      # What is said of it near a patch: of a secret place, its kind alone.
      def label_near = nature.secret ? nature.label : label
      def heading = name || nature.label.capitalize

      # The zone as those see it who need not know where it is: within a square of the map, without its name.
      def veiled
        return self unless nature.secret

        dup.tap(&:veil)
      end

      # The zone with what is kept from its edge; nil when nothing is.
      def kept_ground
        return if @veiled

        Core::Survey::Overlay.buffer(shape, distance_kept) if distance_kept.positive?
      rescue Core::Survey::Overlay::Tangled # distances are kept from its line; what is around it is not drawn
        nil
      end

      # Tells the patches that it concerns: those in its reach, for rules or rank; water concerns them all.
      def tell
        property.year_changed if kind == "water"
        ids = property.live_patches.unordered.within(Surroundings.reach(self)).select_map(:id) unless kind == "water"
        Surroundings.settle_soon(property, ids)
      end

      # Off the map and out of what patches know, or back.
      def take_off = change(Time.now.utc)
      def bring_back = change(nil)

      # Puts the square in the place of the shape; never saved.
      def veil
        low, high = [west, south].map { |at| (at / CELL).floor * CELL }, [east, north].map do |at|
          (at / CELL).ceil * CELL
        end
        ring = [low, [high[0], low[1]], high, [low[0], high[1]], low]
        self.shape = Core::Survey::Shape.new({ "type" => "Polygon", "coordinates" => [ring] })
        self.name = self.note = nil
        @veiled = true
        freeze
      end
      CELL = 0.005 # degrees, some 500 m
      protected :veil

      private

      def change(deleted_at)
        update(deleted_at:)
        tell
      end
    end
  end
end
