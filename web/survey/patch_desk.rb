# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      # What a patch's page shows of its ground: the map's frame, what it was, what lies around, what can be done to it.
      class PatchDesk
        LEAST = [0.0012, 0.0009].freeze # degrees of air around a small patch, east and north
        FAR, OTHERS = 10, 12
        MEASURED, AROUND = 40, 0.0045 # patches whose distance is measured; degrees around it, about 500 m

        def initialize(patch, today)
          @patch, @today = patch, today
        end

        # [west, south, east, north] of the map: the patch with as much air on each side as it is large.
        def bounds
          west, south, east, north = @patch.shape.bounds
          x, y = [east - west, LEAST[0]].max, [north - south, LEAST[1]].max
          [west - x, south - y, east + x, north + y]
        end

        # Its earlier shapes, for the map.
        def past = @patch.past_shapes.map { |shape| { geometry: shape.shape.geometry, style: "past" } }

        def near = around.select(&:within?)
        def far = around.reject { |zone| zone.within? || hidden?(zone) }.first(FAR)

        # Distances to a secret place, from several patches, tell where it is.
        def hidden?(zone) = @patch.property.veiled && Core::Knowledge.shipped.zone_kinds.fetch(zone.kind).secret

        # {patch => m²} of those that it shares ground with.
        def shared = @shared ||= Store::Overlaps.with(@patch)

        # [[day, gross m², infested m²]] where it was looked at more than once, else nil.
        def steps = @patch.past_shapes.empty? ? nil : growth.steps(@today)
        def yearly = growth.yearly(@today)
        def since = @patch.versions.first.from

        # What stands there (Store::PatchStanding::There); nil without a plant.
        def there = @there ||= @patch.history.there(@today)

        # [[number, unit, is it an estimate?]] of what stands there; by density where nobody counted.
        def numbers
          told = there&.counted? ? counted : mapped
          told.filter_map { |number, unit, rough| [number, number == 1 ? unit : "#{unit}s", rough] if number }
        end

        def faces = @patch.aspect_deg && Core::Survey::Elevation::Lie.new(aspect: @patch.aspect_deg).faces

        # Patches of the same plant that it could take in, nearest first: [[patch, m]].
        def others
          return [] unless @patch.plant_key

          near = @patch.property.live_patches.unordered.within(wider).where(plant_key: @patch.plant_key)
                       .exclude(id: @patch.id).limit(MEASURED)
          near.map { |other| [other, @patch.shape.distance(other.shape)] }.sort_by(&:last).first(OTHERS)
        end

        # Records that were taken back, which can be brought back.
        def taken_back
          @taken_back ||= [Store::Treatment, Store::Check, Store::Observation, Store::Planting].flat_map do |model|
            model.where(patch_id: @patch.id).exclude(deleted_at: nil).all
          end.sort_by(&:on)
        end

        def last_change = Store::Change.undoable.where(patch_id: @patch.id).first

        private

        def counted
          { "plant" => there.plants, stem => there.stems, "seedling" => there.seedlings&.nonzero? }
            .map { |unit, number| [number, unit, there.estimated] }
        end

        def mapped
          number, how = @patch.amount.stem_count
          [[@patch.plants, "plant", false], [@patch.stems || number, stem, @patch.stems.nil? && how == :estimated]]
        end

        def stem = "#{@patch.stem_size} stem".strip

        def wider
          west, south, east, north = @patch.shape.bounds
          [west - AROUND, south - AROUND, east + AROUND, north + AROUND]
        end

        def around = @around ||= Store::Surroundings.new(@patch.property).all(@patch.ground || @patch.shape)
        def growth = @growth ||= Core::Survey::Growth.new(@patch.versions)
      end
    end
  end
end
