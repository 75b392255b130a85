# frozen_string_literal: true

require "securerandom"

module Thistle
  module Store
    # Model: a piece of ground that someone answers for.
    class Property < Sequel::Model(:properties)
      one_to_many :zones, class: "Thistle::Store::Zone", conditions: { deleted_at: nil }
      one_to_many :patches, class: "Thistle::Store::Patch"
      many_to_one :group, class: "Thistle::Store::Group"

      include OfGroup
      include ByLaw

      # Is it drawn for somebody who need not know where its rare plants stand?
      attr_accessor :veiled

      # Its zones as whoever asks may see them; what is reckoned with is `zones`.
      def zones_shown = veiled ? zones.map(&:veiled) : zones

      dataset_module do
        # Those that are not put away.
        def kept = where(put_away_at: nil)
        def put_away = exclude(put_away_at: nil)
      end

      SITES = 100 # places and days whose years are kept, by use

      class << self
        # Sites are costly to work out (ten years of weather) and the same all day: kept by place and day.
        def sites = @sites ||= Core::Kept.new(SITES)

        # Answers a weather feed (see Core::Season::Day) for a property; set where the application is put together.
        attr_accessor :feed
      end

      FEEDS = { "simulated" => "a simulated station", "own" => "this property's own station",
                "broad" => "usual values of the places around" }.freeze

      # The property's year and weather on a day.
      def site(today)
        weather = feed == "own" ? [id, season_version] : [feed, station_seed, climate, station]
        where = { latitude:, longitude:, elevation: elevation_m, texture:, today:, climate: climate_kind, **year_facts }
        self.class.sites.fetch([weather, where, timezone]) do
          Core::Season::Site.new(feed: self.class.feed.call(self), clock:, **where)
        end
      end

      # A plant's year here by the weather alone, whatever people saw of it; the same all day.
      def plain_calendar(plant, today)
        site = site(today)
        Core::Kept::ANSWERS.fetch([:plain_calendar, site, plant.key]) do
          Core::Season::Phenology.new(plant, site, sightings: [])
        end
      end

      # Where its weather is measured, when that is not here.
      def station
        return unless station_latitude

        Core::Season::Station.new(name: station_name || "the station", latitude: station_latitude,
                                  longitude: station_longitude,
                                  elevation: station_elevation_m, kind: feed.to_sym)
      end

      # What the year rests on taken the weather, read once until it changes.
      def year_facts
        FACTS.fetch([self.class.db, id, season_version]) do
          { seen: Sighting.seen(self), lake: lake?, poorly_drained: poorly_drained || false }
        end
      end
      FACTS = Core::Kept.new(200)

      # The clock that people go by here.
      def clock = @clock ||= Core::Season::Clock.new(timezone, longitude:)

      # The day that it is here, for as long as one request has this object.
      def today = @today ||= Setting.today(clock)

      # Is there open water, so that ice and water marks matter?
      def lake? = zones.any? { |zone| zone.kind == "water" && zone.shape.kind == "polygon" }

      # Something that the year rests on changed: it is worked out anew, and what waits for it follows.
      def year_changed
        this.update(season_version: Sequel[:season_version] + 1)
        refresh
        db.after_commit { FollowUps.follow_weather([self], today) }
      end

      # What it reads with others; by itself where nobody put them together.
      attr_writer :together

      def together = @together ||= Together.new([id])

      # What labels say of the weather, {kind of work => {limit => value}}; nil where none was entered.
      def label_limits
        limits = together.products(id).to_h { |kind, product| [kind.to_sym, product.limits] }
        limits.reject { |_, one| one.empty? }.then { |told| told.empty? ? nil : told }
      end

      # Is a product for water at hand? As the property says; for a kind of work with a product in use, as that one's
      # label says: {kind => true or false}.
      def for_water
        told = together.products(id).to_h { |kind, product| [kind.to_sym, product.aquatic] }.compact
        return aquatic_label if told.empty?

        InUse::KINDS.keys.to_h { |kind| [kind.to_sym, aquatic_label] }.merge(told)
      end

      # {question => option} that this property answers; the rest are defaults.
      def school_answers = JSON.parse(schools, symbolize_names: true)

      # The school that counts for each question here.
      def schools_kept = @schools_kept ||= Core::Decide::School.settle(school_answers)

      # The rules that count here.
      def rule_book = together.rule_book(id)

      # What its patches' Facts start from.
      def kept_facts
        @kept_facts ||= { stance:, licensed:, aquatic_label: for_water, fire_adapted:, schools: schools_kept,
                          book: rule_book, rates:, labels: label_limits }.freeze
      end

      # What the facts of all its patches of a plant have in common: what an answer kept for them rests on.
      def facts_shared(plant) = [kept_facts, kills[plant.key], reports_first?(plant), plant.belongs(region)]

      # Flat, settled ground of this property with a plant on it, where nothing more is said.
      def facts(plant, date, **more)
        Core::Decide::Facts.new(**kept_facts, plant:, date:, settled: true, slope: "flat",
                                              belongs: plant.belongs(region), kills: kills[plant.key], **more)
      end

      # What methods killed, by the group's own records: {plant => {method => …}} (Learned).
      def kills = together.kills

      # What an hour and a litre cost here; planning values where nothing was entered.
      def rates = @rates ||= kept_rates

      def kept_rates
        plain = Core::Decide::Effort::RATES
        plain.with(hour: hour_cost || habits.hour || plain.hour, litre: litre_cost || habits.litre || plain.litre,
                   currency: currency || habits.coin || plain.currency, pace: together.pace)
      end
      private :kept_rates

      def forget = @laid_down = @habits = @schools_kept = @rates = @kept_facts = @together = @today = @clock = nil
      private :forget

      # What was worked out from the columns before they changed is gone with them.
      def _refresh(*)
        forget
        super
      end

      # Where it lies is found once, when it is written down.
      def before_create
        set(Whereabouts.at(longitude, latitude)) if country.nil?
        super
      end

      # Lies elsewhere than was said: its border, its broad weather and its year follow.
      def move(latitude:, longitude:, elevation_m:)
        kind = { region:, climate: climate_kind }
        broad = {}
        broad[:climate] = Whereabouts.weather(longitude, latitude, height: elevation_m, **kind) if feed == "broad"
        db.transaction do
          update(latitude:, longitude:, elevation_m:, placed: true, **Whereabouts.at(longitude, latitude), **broad)
          year_changed
        end
      end

      def put_away = update(put_away_at: Time.now.utc)
      def bring_back = update(put_away_at: nil)
      def put_away? = !put_away_at.nil?

      def after_update
        forget
        super
      end

      # The chance that a patch still lives below which it closes, and whose seed and fragment years have to be over.
      def closes_below = close_below || Core::Recheck::Alive::CLOSED_BELOW
      def closes_after = close_years || "likely"
      CLOSE_YEARS = { "likely" => "the likely years", "high" => "the longest years" }.freeze

      # Weights of a patch's rank as kept here: those of a goal until someone sets them.
      def rank_weights = weights ? JSON.parse(weights) : Core::Knowledge.shipped.goals.fetch("stop_spread").weights

      # A new secret part for the address of its calendar; the old one opens nothing any more.
      def renew_calendar_key = update(calendar_token: SecureRandom.urlsafe_base64(18))

      # Plants of its live patches, by name.
      def plants
        keys = patches_dataset.live.exclude(plant_key: nil).exclude(state: "closed")
                              .unordered.distinct.select_map(:plant_key)
        keys.map { |key| Core::Knowledge.shipped.plant(key) }.sort_by(&:name)
      end

      # Every plant of the library that is removed here, by name.
      def weeds = Core::Knowledge.shipped.plants.values.select { |plant| weed?(plant) }.sort_by(&:name)
      def weed?(plant) = plant.weed_in?(region)

      def last_arrivals = Arrival.where(property_id: id).reverse(:id).limit(12).all
      # [lon, lat] at which people come in: the gate or road, else the first trail's end; nil where neither is mapped.
      def way_in = (zones_of("access") + zones_of("trail")).first&.then { |zone| zone.shape.positions.first }

      # What goes with its country, or was said otherwise: coin, paper, whom to call, the grid of its maps.
      def habits
        @habits ||= Core::Survey::Habits.of(country, emergency: emergency_number, paper:, grid:, dates:)
      end

      def measures = Core::Units.new(units)
      def live_patches = patches_dataset.where(deleted_at: nil).order(:code)
      def boundary = zones_of("boundary").first
      def zones_of(kind) = zones.select { |zone| zone.kind == kind }

      one_to_many :weather_files, class: "Thistle::Store::WeatherFile", order: :id
      one_to_many :searches, class: "Thistle::Store::Search", order: :searched_on, conditions: { deleted_at: nil }
      one_to_many :layers, class: "Thistle::Store::Layer", order: :id

      def next_code = next_codes(1).first

      # So many free patch codes, none of `taken`. Call it inside the transaction that uses them, so that nobody else
      # gets the same.
      def next_codes(count, taken: [])
        first = this.get(:last_number) + 1
        codes = numbered(first, count)
        if codes.intersect?(taken) || !patches_dataset.unordered.where(code: codes).empty?
          first = [highest_number, *taken.filter_map { |code| number_of(code) }].max + 1
        end
        this.update(last_number: first + count - 1)
        numbered(first, count)
      end

      def numbered(first, count) = Array.new(count) { |n| format("%s-%02d", prefix, first + n) }
      def number_of(code) = code.start_with?("#{prefix}-") ? code[/-(\d{1,9})\z/, 1]&.to_i : nil

      def highest_number
        number = Sequel.cast(Sequel.function(:substr, :code, prefix.size + 2), Integer)
        patches_dataset.unordered.where(Sequel.like(:code, "#{patches_dataset.escape_like(prefix)}-%")).max(number) || 0
      end
      private :numbered, :number_of, :highest_number

      # [west, south, east, north] of everything mapped.
      def bounds
        boxes = zones.map { |zone| [zone.west, zone.south, zone.east, zone.north] }
        boxes << [longitude - 0.005, latitude - 0.004, longitude + 0.005, latitude + 0.004] if boxes.empty?
        [boxes.map { |b| b[0] }.min, boxes.map { |b| b[1] }.min, boxes.map { |b| b[2] }.max, boxes.map { |b| b[3] }.max]
      end
    end
  end
end
