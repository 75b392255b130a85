# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      # What of a property was searched and when, what was not there, and where the next scouting walk goes.
      class SearchDesk
        AGES = { "fresh" => 60, "year" => 365, "old" => nil }.freeze # days since; the map's three greens
        METRES = [1000, 2000, 3000, 5000].freeze
        WANTING = %w[reported standing regrowing hit].freeze

        attr_reader :metres

        def initialize(property, today, metres: nil)
          @property, @today = property, today
          @metres = METRES.include?(Whole.read(metres)) ? Whole.read(metres) : 2000
        end

        def searches = @searches ||= @property.searches_dataset.newest.with_plants
        def boundary = @property.boundary&.shape

        # Share and area of the property seen in the last so many days.
        def seen_within(days)
          grounds = searches.select { |search| search.searched_on > @today - days }.map(&:seen_ground)
          Core::Survey::Searched.cover(boundary, grounds)
        end

        # {plant key => [date of the latest search that did not find it, search]}
        def absences
          searches.flat_map { |search| search.absences.map { |key| [key, search] } }.group_by(&:first)
                  .transform_values { |rows| rows.map(&:last).max_by(&:searched_on) }
        end

        # What one looks for here: plants that are mapped or watched for.
        def sought
          here = @property.live_patches.unordered.exclude(plant_key: nil).distinct.select_map(:plant_key)
          @sought ||= @property.weeds.select { |plant| here.include?(plant.key) || @property.watched?(plant) }
        end

        # Cautions for whoever goes: what of it can harm.
        def harms = sought.flat_map { |plant| plant.hazards & Core::Plant::WARNED }.uniq

        # nil without a boundary.
        def route
          return unless boundary

          @route ||= Core::Survey::Scouting.new(boundary:, draws:, seen: searches.map do |s|
            Core::Survey::Scouting::Seen.new(on: s.searched_on, ground: s.seen_ground)
          end,
                                                start:, today: @today).route(metres)
        end

        # Where one comes in, else the middle.
        def start = @property.way_in || boundary.centre

        # For the map: searched ground by age, oldest below, then the way to go.
        def drawn
          grounds = searches.reverse.map { |s| { geometry: s.seen_ground.geometry, style: age(s) } }
          tracks = searches.select(&:length_m).map { |s| { geometry: s.shape.geometry, style: "walked" } }
          grounds + tracks + drawn_route
        end

        def age(search)
          days = (@today - search.searched_on).to_i
          AGES.find { |_, limit| limit.nil? || days <= limit }.first
        end

        private

        def draws
          zones = @property.zones.select { |zone| zone.nature.spreads.positive? && zone.kind != "boundary" }
          edge = { label: "edge", spreads: Core::Knowledge.shipped.zone_kinds["boundary"].spreads, shape: edge_line }
          [edge, *zones.map { |zone| { label: zone.nature.label, spreads: zone.nature.spreads, shape: zone.shape } },
           *patches]
            .map { |row| Core::Survey::Scouting::Draw.new(**row) }
        end

        def edge_line
          Core::Survey::Shape.new({ "type" => "MultiLineString", "coordinates" => boundary.parts.flatten(1) }, [])
        end

        # A patch that bears seed draws more than one that was hit.
        def patches
          @property.live_patches.unordered.where(state: WANTING).order(:id).limit(500).map do |patch|
            { label: "a patch", spreads: patch.state == "hit" ? 0.4 : 0.8, shape: patch.shape }
          end
        end

        def drawn_route
          return [] unless route&.stops&.any?

          places = [route.start, *route.stops.map(&:place), route.start]
          numbered = route.stops.each_with_index.map { |stop, n| numbered(stop, n + 1) }
          [{ geometry: { type: "LineString", coordinates: places }, style: "route" }, *numbered]
        end

        def numbered(stop, label)
          { geometry: { type: "Point", coordinates: stop.place }, style: "route", label: }
        end
      end
    end
  end
end
