# frozen_string_literal: true

module Thistle
  module Web
    module Pocket
      # What a phone takes along of a property, and of a work day on it: addresses in the order in which they matter, so
      # that what does not fit is the least.
      class Along
        PATCHES = 120 # whose pages go along; the map shows all
        TILES, PICTURES = 220, 40 # at most
        AHEAD = 45 # days in which a visit is due

        def initialize(property, today, day: nil)
          @property, @today, @day = property, today, day
        end

        # patches: ids, by which an address is known as this property's; pages: addresses; left_out: patches whose own
        # pages stay behind; and what always stays behind, in words.
        def to_h
          { property: @property.id, name: @property.name, day: @day&.id, patches: ids, pages:, map:, left_out:,
            missing: }
        end

        def pages
          of_patches = patches.flat_map { |id| of_patch(id) }
          [*START, *of_day, *of_patches, *plants, *plantings, *trials, *LAST, *pictures].uniq
        end

        private

        START = %w[/pocket /pocket/record / /survey /work /recheck /identify /glossary/terms.json
                   /img/glyphs.svg].freeze
        LAST = %w[/season /decide /mix /replant /survey/searches /survey/walk /work/people /glossary].freeze
        BELOW = %w[field brief].freeze
        private_constant :START, :LAST, :BELOW

        def of_day
          return [] unless @day

          stops = Work::FieldBoard.new(@day, @today).cards.map { |card| "/work/days/#{@day.id}/field/#{card.patch.id}" }
          ["/work/days/#{@day.id}", *BELOW.map { |part| "/work/days/#{@day.id}/#{part}" }, *stops]
        end

        def ids = @property.live_patches.unordered.order(:id).limit(Carried::PATCHES).select_map(:id)

        # What is done there is said of a patch that has a name.
        def of_patch(id)
          of_plant = named.include?(id) ? ["/work?patch=#{id}", "/decide?patch=#{id}"] : []
          ["/survey/patches/#{id}", "/recheck/patches/#{id}", *of_plant]
        end

        def named
          @named ||= @property.live_patches.unordered.exclude(plant_key: nil).where(id: patches).select_map(:id)
        end

        # Those of the day, then those with a visit, then those that want work.
        def patches = @patches ||= (of_the_day | due | wanting).first(PATCHES)

        def of_the_day = @day ? Work::FieldBoard.new(@day, @today).cards.map { |card| card.patch.id } : []

        def due
          Store::Task.due(through: @today + AHEAD).where(property_id: @property.id).select_map(:patch_id).uniq
        end

        def wanting = @property.live_patches.wanting_work.unordered.order(:id).limit(PATCHES).select_map(:id)

        def plants
          keys = @property.live_patches.unordered.exclude(plant_key: nil).distinct.select_map(:plant_key).sort
          keys.map { |key| "/identify/plants/#{key}" }
        end

        def plantings
          Store::PlantingPlan.live.where(patch_id: @property.live_patches.unordered.select(:id)).order(:id).limit(20)
                             .select_map(:id).flat_map { |id| ["/replant/plans/#{id}", "/replant/plans/#{id}/take"] }
        end

        # The map's own data, whole, with the layers that are shown.
        def map
          shown = @property.layers_dataset.live.where(shown: true).all
          ["/survey/features?bbox=-180,-90,180,90", "/survey/ground", "/survey/list",
           *shown.flat_map { |layer| of_layer(layer).map { |part| "/survey/layers/#{layer.id}/#{part}" } }]
        end

        def of_layer(layer)
          case layer.kind
          when "tiles" then tiles(*layer.details.values_at("min", "max"))
          when "picture" then ["picture"]
          when "elevation" then %w[shade lines]
          else ["lines"]
          end
        end

        # Tiles over the property, from the coarsest on, as deep as so many reach.
        def tiles(least, most)
          found = []
          (least..most).each do |zoom|
            level = at_zoom(zoom)
            break if found.size + level.size > TILES

            found.concat(level)
          end
          found
        end

        # "zoom/column/row" of the tiles (XYZ, web Mercator) over the property.
        def at_zoom(zoom)
          west, south, east, north = @property.bounds
          columns = [west, east].map { |lon| ((lon + 180) / 360 * (2**zoom)).floor }
          rows = [north, south].map do |lat|
            angle = lat * Math::PI / 180
            ((1 - (Math.log(Math.tan(angle) + (1 / Math.cos(angle))) / Math::PI)) / 2 * (2**zoom)).floor
          end
          Range.new(*columns).flat_map { |column| Range.new(*rows).map { |row| "#{zoom}/#{column}/#{row}" } }
        end

        # The last picture of each patch, to line up the next one with; trials whose tags are looked at.
        def pictures
          newest = Store::Picture.live.where(patch_id: patches).group(:patch_id).select_map(Sequel.function(:max, :id))
          newest.sort.last(PICTURES).map { |id| "/work/pictures/#{id}" }
        end

        def trials
          Store::TrialRun.live.where(patch_id: patches).order(:id).limit(20).select_map(:id)
                         .map { |id| "/recheck/trials/#{id}" }
        end

        def left_out = [@property.live_patches.count - patches.size, 0].max

        def missing
          host = @property.tile_url&.slice(%r{\Ahttps://[^/]+})
          ["what others record meanwhile", "weather after #{Words.full_day(@today)}",
           ("the picture map of #{host.delete_prefix("https://")}" if host)].compact
        end
      end
    end
  end
end
