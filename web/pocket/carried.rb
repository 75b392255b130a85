# frozen_string_literal: true

module Thistle
  module Web
    module Pocket
      # What a phone takes along of a property so that its own Ruby can answer: the year with its weather, what the
      # property keeps, its shelf, and of each patch what the rules ask.
      class Carried
        PATCHES = 2000
        SPAN = 2 * 365 * 86_400 # seconds about today in which the clock's turns are told

        # shelf: may whoever asks see it? The block says what stands of a patch, as the page tells it.
        def initialize(property, today, shelf: true, &stands)
          @property, @today, @shelf, @stands = property, today, shelf, stands
        end

        # {clock: {name => turns}, land: base64, weather: words, today:}
        def to_h
          { today: @today, name: @property.name, clock: { @property.clock.name => turns }, weather:,
            land: [Marshal.dump(land)].pack("m0") }
        end

        private

        def land
          { units: @property.units, habits: @property.habits, region: @property.region, today: @today,
            watch: JSON.parse(@property.watch),
            duties: knowledge.invaders.to_h { |plant| [plant.key, @property.duties_of(plant)] },
            kept_facts: @property.kept_facts, rates: @property.rates, site:, mapped: plants.map(&:key),
            kills: knowledge.plants.values.to_h { |plant| [plant.key, @property.kills[plant.key]] }.compact,
            patches:, first:, **shelf }
        end

        def knowledge = Core::Knowledge.shipped
        def plants = @property.plants

        # The year as this process worked it out; what hangs on one plant is worked out there.
        def site
          made = Core::Season::Site.new(feed: Store::Property.feed.call(@property), clock: @property.clock,
                                        latitude: @property.latitude, longitude: @property.longitude,
                                        elevation: @property.elevation_m, texture: @property.texture, today: @today,
                                        climate: @property.climate_kind, **@property.year_facts)
          made.packed
        end

        # By their codes; what is not named yet has no facts.
        def patches
          rows = @property.live_patches.limit(PATCHES).all
          rows.to_h do |patch|
            facts = patch.facts(@today)&.to_h&.except(:plant)
            [patch.id, { code: patch.code, plant_key: patch.plant_key, stem_size: patch.stem_size,
                         water_m: patch.water_m, facts:, settled: patch.settled?, group: patch.group&.key,
                         own_schools: patch.own_schools, failed: patch.failed_twice&.key,
                         stands: @stands&.call(patch) }]
          end
        end

        def first = @property.live_patches.wanting_work.exclude(plant_key: nil).unordered.order(:id).get(:id)

        def shelf
          return { usage: {}, in_use: {}, shelf: {}, calibrations: {} } unless @shelf

          methods = knowledge.methods_of_removal.values.select(&:herbicide?)
          usage = methods.flat_map do |removal|
            [[[removal.key, nil], Store::Usage.on_ground(removal)],
             *Core::Removal::SIZES.map { |size| [[removal.key, size], Store::Usage.of(removal, size)] }]
          end
          uses = methods.map(&:use).uniq.to_h { |use| [use, Store::InUse.for(@property, use)&.label] }
          { usage: usage.to_h.compact, in_use: uses.compact,
            shelf: Store::Product.live.here.named.all.to_h { |product| [product.id, product.label] },
            calibrations: calibrations }
        end

        def calibrations
          Store::Calibration.live.here.newest.limit(Store::Calibration::LISTED).all.to_h do |one|
            [one.id, { said: one.said, done_on: one.done_on, litres_per_100m2: one.litres_per_100m2 }]
          end
        end

        # [[from, to, offset, offset without daylight saving]] about today.
        def turns
          zone = TZInfo::Timezone.get(@property.clock.name)
          now = Time.utc(@today.year, @today.month, @today.day).to_i
          [*zone.transitions_up_to(Time.at(now + SPAN).utc, Time.at(now - SPAN).utc)].then do |all|
            ends = all.map { |one| one.at.to_i }
            [nil, *ends].zip([*ends, nil]).map do |from, to|
              at = zone.period_for(Time.at(from || (to ? to - 1 : now)).utc)
              [from, to, at.observed_utc_offset, at.base_utc_offset]
            end
          end
        end

        def weather
          site = @property.site(@today)
          site.forecast? ? "forecast to #{Words.full_day(site.horizon)}" : "no forecast"
        end
      end
    end
  end
end
