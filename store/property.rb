# frozen_string_literal: true

module Thistle
  module Store
    # A piece of ground that someone answers for.
    class Property < Sequel::Model(:properties)
      one_to_many :zones, class: "Thistle::Store::Zone", conditions: { deleted_at: nil }
      one_to_many :patches, class: "Thistle::Store::Patch"

      class << self
        # Sites are costly to work out (ten years of weather) and the same all day: kept by place and day.
        def sites = @sites ||= {}

        # Answers a weather feed (see Core::Season::Day) for a property; set where the application is put together.
        attr_accessor :feed
      end

      # The property's year and weather on a day.
      def site(today)
        key = [station_seed, climate, latitude, texture, today]
        self.class.sites[key] ||= begin
          self.class.sites.clear if self.class.sites.size > 32
          Core::Season::Site.new(feed: self.class.feed.call(self), latitude:, texture:, today:)
        end
      end

      # Plants that are reported here before anyone removes them: new to the region, or watched for.
      def reports_first?(plant) = plant.new_to?(region) || watched?(plant)
      def watched?(plant) = watch.include?(%("#{plant.key}"))

      # Begins or ends the watch for a plant.
      def toggle_watch(plant)
        keys = JSON.parse(watch)
        update(watch: JSON.generate(watched?(plant) ? keys - [plant.key] : keys + [plant.key]))
      end

      def last_arrivals = Arrival.where(property_id: id).reverse(:id).limit(12).all
      def measures = Core::Units.new(units)
      def live_patches = patches_dataset.where(deleted_at: nil).order(:code)
      def boundary = zones_of("boundary").first
      def zones_of(kind) = zones.select { |zone| zone.kind == kind }

      one_to_many :searches, class: "Thistle::Store::Search", order: :searched_on, conditions: { deleted_at: nil }
      one_to_many :layers, class: "Thistle::Store::Layer", order: :id

      # The free patch codes, prefix and number, from the next one on; an endless Enumerator.
      def next_codes
        last = patches_dataset.where(Sequel.like(:code, "#{prefix}-%")).select_map(:code).filter_map { |code| code[/\d+\z/]&.to_i }.max || 0
        Enumerator.new { |codes| (1..).each { |n| codes << format("%s-%02d", prefix, last + n) } }
      end

      def next_code = next_codes.first

      # [west, south, east, north] of everything mapped.
      def bounds
        boxes = zones.map { |zone| [zone.west, zone.south, zone.east, zone.north] }
        boxes << [longitude - 0.005, latitude - 0.004, longitude + 0.005, latitude + 0.004] if boxes.empty?
        [boxes.map { |b| b[0] }.min, boxes.map { |b| b[1] }.min, boxes.map { |b| b[2] }.max, boxes.map { |b| b[3] }.max]
      end
    end
  end
end
