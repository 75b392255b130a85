# frozen_string_literal: true

module Thistle
  module Store
    # Reading: what is owed water: plants in their first two summers, by the bucket that their roots can reach, the rain
    # since, what somebody poured, and the forecast.
    class WaterOwed
      YEARS = 2 # after planting, in which it is looked after (memory)
      # patch; planted_on: of the youngest; fill: of what its roots reach; on: the day on which it wants water, at the
      # latest the last day of the forecast; last: watered; litres: for all of its plants; rain_mm: of the last seven
      # days, nil where a day of them is not known.
      Owed = Core::Value.define(:patch, :planted_on, :fill, :on, :last, :litres, :rain_mm) do
        # mm that a week of young plants still wants, by the usual inch; nil where the rain is not known.
        def week_mm = rain_mm && [WEEK_MM - rain_mm, 0.0].max
      end
      WEEK_MM = 25.4 # an inch a week while they are young (common practice)
      CATCH = 0.1 # m² of soil that a plug's water goes into (memory)

      def initialize(properties, today)
        @properties, @today = properties, today
      end

      # [Owed], the driest first: what wants water by the end of the forecast.
      def rows
        @rows ||= of_patches.filter_map { |patch, plantings| owed(patch, plantings) }
                            .sort_by { |one| [one.on, one.fill] }
      end

      # The Owed of a patch, dry or not; nil where nothing young stands.
      def of(patch)
        plantings = young.where(patch_id: patch.id).all
        plantings.any? ? owed(patch, plantings, always: true) : nil
      end

      private

      def young
        Planting.where(deleted_at: nil).exclude(plugs: nil).where(done_on: (@today - (365 * YEARS))..@today)
      end

      def of_patches
        plantings = young.all.group_by(&:patch_id)
        patches = Patch.live.where(id: plantings.keys, property_id: @properties.map(&:id)).all
        patches.map { |patch| [patch, plantings.fetch(patch.id)] }
      end

      def owed(patch, plantings, always: false)
        planted_on = plantings.map(&:done_on).max
        site = patch.property.site(@today)
        waterings = poured.fetch(patch.id, [])
        on, fill, dry = followed(site, planted_on, waterings)
        return unless on || always

        litres = dry * CATCH * plantings.sum(&:in_ground)
        Owed.new(patch:, planted_on:, fill:, on:, last: waterings.last, litres:, rain_mm: rain(site))
      end

      def rain(site)
        (@rain ||= {})[site] ||= begin
          days = ((@today - 7)...@today).map { |date| site.day(date).rain }
          [days.all? ? days.sum : nil]
        end
        @rain[site].first
      end

      # {patch id => days on which it was watered}.
      def poured
        since = @today - (365 * YEARS)
        @poured ||= Watering.live.where { watered_on >= since }.order(:watered_on)
                            .select_hash_groups(:patch_id, :watered_on)
      end

      # The same for all that were planted on one day and watered on the same ones.
      def followed(site, planted_on, waterings)
        (@followed ||= {})[[site, planted_on, waterings]] ||= follow(site, planted_on, waterings)
      end

      # [the first day from today on that it is thirsty, its fill today, mm that filling it up takes].
      def follow(site, planted_on, waterings)
        roots = Core::Replant::RootWater.new(site.texture, fill: site.ground(planted_on).fill)
        fill = dry = thirsty = nil
        (planted_on..site.horizon).each do |date|
          roots.water if waterings.include?(date)
          roots.pass(*Core::Replant::PlantingOdds.weather(site, date)) if date > planted_on
          next if date < @today

          fill ||= roots.fill
          thirsty ||= roots.thirsty? ? date : nil
          dry ||= roots.dup.water if thirsty || date == site.horizon
        end
        [thirsty, fill, dry || 0.0]
      end
    end
  end
end
