# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      # A year of gathering: what ripens when, of what is planned here or of everything at home; how much may be taken;
      # what is divided instead.
      class GatherBoard
        KEEPING = { dry: "dry a fortnight in paper, in moving air and shade; keep cool and dry",
                    rest: "dry, then let it rest in paper at room warmth for its months; young seed does not sprout",
                    moist: "never let it dry out: clean off the pulp, sow at once or keep in damp sand, cool",
                    wet: "keep it in water or wet mud, cool" }.freeze

        attr_reader :property, :today, :stand, :on

        def initialize(params, property, units, today, on: nil)
          @property, @today = property, today
          @all = params["all"] == "1"
          @on = on || today
          asked = params.slice("native", "plants", "each")
          @stand = asked.empty? ? Forms::Stand.untouched(units:, today:) : Forms::Stand.new(asked, units:, today:)
        end

        def all? = @all || planned.empty?

        # Places where seed may be gathered.
        def places
          @places ||= Store::GatherPlace.live.where(property_id: property.id).order(:native_key, :id).all
        end

        # The walk past those that are ripe on a day; every native that has a place counts, planned or not.
        def round
          @round ||= begin
            gathering = Core::Replant::Gathering.new(property.site(today))
            windows = places.map(&:native).uniq.to_h { |native| [native.key, gathering.window(native)] }.compact
            Store::GatherRound.new(property, windows, on)
          end
        end

        # The places for the map, those of the walk with their number in it.
        def marks
          numbers = round.stops.each_with_index.to_h { |stop, n| [stop.place.id, (n + 1).to_s] }
          places.map do |place|
            geometry = { type: "Point", coordinates: place.position }
            { geometry:, style: "past", label: numbers[place.id] }.compact
          end
        end

        # Natives of the live plans of this property.
        def planned
          @planned ||= begin
            patches = property.live_patches.unordered.select(:id)
            keys = Store::Planting.where(patch_id: patches, deleted_at: nil).distinct.select_map(:native_key)
            keys.filter_map { |key| Core::Knowledge.shipped.palette[key] }
          end
        end

        # Natives that are gathered here: those planned, or all that are at home.
        def natives
          return planned unless all?

          place = Store::Whereabouts.place(property, climate: property.site(today).climate.key)
          Core::Knowledge.shipped.palette.values.select { |native| native.at(place) == :home }
        end

        # [Core::Replant::Gathering::Window], the next to ripen in front.
        def windows
          @windows ||= begin
            gathering = Core::Replant::Gathering.new(property.site(today))
            natives.filter_map { |native| gathering.window(native) }.sort_by { |one| [one.from, one.native.name] }
          end
        end

        # What is divided, not sown: [[native, the next window]].
        def divided
          sowing = Core::Replant::Sowing.new(property.site(today))
          natives.select { |native| native.stock.include?("divisions") }.sort_by(&:name)
                 .map { |native| [native, sowing.of(native).first] }
        end

        # Grams at most of the stand that was asked about; nil until it is said.
        def most_g
          return unless stand.ok? && stand.raw.any?

          native = Core::Knowledge.shipped.native(stand.values[:native])
          Core::Replant::Gathering.most_g(native, plants: stand.values[:plants], seeds_each: stand.values[:each])
        end
      end
    end
  end
end
