# frozen_string_literal: true

module Thistle
  module Store
    # Reading: the Core::Replant::SiteSheet of a patch or of a property, from what is said now, what was kept, the
    # survey, the season and the soil bucket, in this order.
    class SiteGround
      Said = Core::Replant::SiteSheet::Said
      HERE, KEPT, RECORD = "said here", "kept for this patch", "the patch’s record"

      # said: {fact => value} of now; cleared: facts that are said not to be known.
      def initialize(property, patch, today, said: {}, cleared: [])
        @property, @patch, @said, @cleared = property, patch, said, cleared
        @site = property.site(today)
      end

      # Raises Core::BadInput (field: the fact) for what cannot be said.
      def sheet
        @sheet ||= Core::Replant::SiteSheet.new(facts, place:, m2: @patch&.gross_m2)
      end

      def place = Whereabouts.place(@property, climate: @site.climate.key)

      private

      def facts
        said = @said.transform_values { |value| Said.new(value:, from: HERE, source: "own_records") }
        kept = @patch ? SiteSaid.of(@patch) : {}
        kept = kept.slice(*Core::Replant::SiteSheet::CHOICES.keys)
                   .transform_values { |value| Said.new(value:, from: KEPT, source: "own_records") }
        all = [said, kept, of_patch, of_property].reduce { |first, later| later.merge(first) }
        with_light(all.except(*@cleared))
      end

      def of_patch
        return {} unless @patch

        { light: @patch.light, moisture: @patch.plant&.aquatic? ? "water" : @patch.moisture,
          remnant: @patch.natives_near ? "yes" : nil, house_m:, lines: lines? ? "yes" : nil,
          jobs: @patch.plant&.jobs }
          .compact.transform_values { |value| Said.new(value:, from: RECORD, source: "own_records") }
      end

      def house_m = @patch.place && JSON.parse(@patch.place)["building_m"]
      def lines? = @patch.zones_in_reach&.any? { |zone| zone.kind == "utility" }

      def of_property
        texture = Core::Knowledge.shipped.soils.fetch(@property.texture)
        { soil: Said.new(value: texture["ground"], from: "the property’s soil, #{texture["label"]}",
                         source: "own_records"), moisture: }
      end

      # By the bucket: what rain and texture make of ground without a water of its own.
      def moisture
        found = Core::Kept::ANSWERS.fetch([:soil_moisture, @site]) { Core::Replant::SoilMoisture.of(@site) }
        from = "#{found.years} years of soil water: dry on #{(found.dry * 100).round} % of the season’s days"
        Said.new(value: found.kind, from:, source: "memory")
      end

      # Light by the sun's path over this slope, through the canopy that was said.
      def with_light(facts)
        canopy = facts[:canopy]&.value
        return facts if facts[:light] && [HERE, KEPT].include?(facts[:light].from)
        return facts unless canopy.is_a?(Numeric) && canopy.between?(0, 100)

        day = sun_hours(canopy / 100.0)
        return facts unless day

        lie = @patch&.slope_deg ? "a slope of #{@patch.slope_deg.round}°" : "flat ground"
        from = "the sun’s path over #{lie}: #{day.open.round(1)} h a day, #{day.through.round(1)} through the leaves"
        facts.merge(light: Said.new(value: Core::Replant::SunHours.light(day.through), from:, source: "sun_path"))
      end

      def sun_hours(canopy)
        year = @site.year
        from, last = %i[leaf_out first_frost].map { |mark| year.moment(mark)&.date }
        from, last = year.start, year.finish unless from && last && last > from
        Core::Replant::SunHours.new(latitude: @property.latitude, slope: @patch&.slope_deg || 0.0,
                                    aspect: @patch&.aspect_deg || 0.0, canopy:).season(from, last)
      end
    end
  end
end
