# frozen_string_literal: true

module Thistle
  module Web
    module Pocket
      # What a phone takes along of a property, and of a work day on it: addresses in the order in which they matter, so
      # that what does not fit is the least.
      class Along
        PATCHES = 120 # whose pages go along; the map shows all
        AHEAD = 45 # days in which a visit is due

        def initialize(property, today, day: nil)
          @property, @today, @day = property, today, day
        end

        # pages: addresses; left_out: patches whose own pages stay behind; and what always stays behind, in words.
        def to_h
          { property: @property.id, name: @property.name, day: @day&.id, pages: pages, map:, left_out:, missing: }
        end

        def pages
          [*START, *of_day, *patches.flat_map { |id| of_patch(id) }, *plants, *plantings, *LAST].uniq
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
                             .select_map(:id).map { |id| "/replant/plans/#{id}" }
        end

        # The map's own data, whole.
        def map = ["/survey/features?bbox=-180,-90,180,90", "/survey/ground", "/survey/list"]

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
