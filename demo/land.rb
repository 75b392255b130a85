# frozen_string_literal: true

require "yaml"

module Thistle
  module Demo
    # Loads the demo scenario through the same doors that people use: patches, treatments, checks.
    class Land
      M_PER_DEGREE = 111_132.0
      # What the scenario calls a thing, and the column that keeps it.
      PROPERTY = %w[name prefix region units latitude longitude elevation_m texture stance licensed]
                 .to_h { |name| [name, name] }.freeze
      PATCH = { "code" => "code", "plant" => "plant_key", "seen" => "seen_on", "plants" => "plants", "aim" => "aim",
                "stems" => "stems", "size" => "stem_size",
                "cover" => "cover_class", "slope" => "slope", "light" => "light", "moisture" => "moisture",
                "natives" => "natives_near", "note" => "note", "radius" => "radius_m", "width" => "width_m" }.freeze
      TREATMENT = { "work" => "done_on", "method" => "method_key", "people" => "people", "crew" => "crew_size",
                    "hours" => "hours",
                    "plants" => "plants_done", "stems" => "stems_done", "area" => "area_m2", "active" => "active_key",
                    "product_ml" => "product_ml",
                    "mix_ml" => "mix_ml", "applicator" => "applicator", "disposal" => "disposal",
                    "note" => "note" }.freeze
      CHECK = { "check" => "checked_on", "resprouts" => "resprouts", "missed" => "missed", "seedlings" => "seedlings",
                "cover" => "cover_class", "natives" => "natives", "note" => "note" }.freeze

      def initialize(path = "#{ROOT}/demo/scenario.yml")
        @scenario = YAML.safe_load_file(path, permitted_classes: [Date])
        @today = @scenario["today"]
      end

      def load
        Store::Property.db.transaction do
          Store::Setting.write("today", @today.iso8601)
          @scenario["properties"].each { |row| load_property(row) }
          @scenario["shelf"].each { |row| load_product(row) }
          @scenario["people"].each { |row| load_person(row) }
          @scenario["accounts"].each { |row| load_account(row) }
          Store::Setting.write(Store::Account::DEMO, "1") # nobody signs in: it is looked at as any of them
          @scenario["kit"].each { |row| Store::KitItem.create(**row) }
        end
        @scenario["work_days"].each { |row| load_work_day(row) }
        first = Store::Property.first(prefix: @scenario["half_way"]["prefix"])
        Core::Dates.written(first.habits.dates) do
          HalfWay.new(@scenario["half_way"], first, @grounds.fetch(first.id), @today).load
        end
      end

      private

      def load_product(row)
        Store::Product.create(**row.except("actives", "uses"), counted_at: Time.now.utc,
                                                               actives: JSON.generate(row["actives"]),
                                                               uses: JSON.generate(row["uses"]))
      end

      def load_person(row)
        lists = Store::Person::LISTS.to_h { |list| [list, JSON.generate(row.fetch(list.to_s, []))] }
        Store::Person.create(**row.except(*lists.keys.map(&:to_s)), **lists)
      end

      def load_account(row)
        email = "#{row["name"].downcase.gsub(/\W+/, ".")}@quillback.example"
        account = Store::Account.create(name: row["name"], email:,
                                        status_id: Store::Account::OPEN, keeper: row.key?("all"))
        account.is(Store::Person.first(name: row["person"])) if row["person"]
        Store::Property.order(:id).all.each do |property|
          role = row["all"] || row["roles"][property.prefix] or next
          Store::Membership.give(account, property, role)
        end
      end

      # A day that is planned, and proposed as anyone would have it proposed; or one that was held, with its records.
      def load_work_day(row)
        people = Store::Person.where(name: row["people"]).select_order_map(:id)
        property = Store::Property.first(prefix: row["prefix"])
        day = Store::WorkDay.create(**row.except("prefix", "people", "held"), people_ids: JSON.generate(people),
                                                                              property_id: property.id)
        return Store::Proposal.new(day, @today).call unless row["held"]

        day.update(closed_at: Time.now.utc)
        Store::Treatment.where(patch: property.live_patches, done_on: day.held_on)
                        .update(work_day_id: day.id, people_ids: day.people_ids)
      end

      def load_property(row)
        year = { station_seed: @scenario["station_seed"], timezone: row["timezone"] || @scenario["timezone"],
                 climate: climate(row) }
        property = Store::Property.create(**columns(row, PROPERTY), **year)
        ground = (@grounds ||= {})[property.id] = Ground.new(row)
        ground.zones.each { |zone| load_zone(property, **zone) }
        load_heights(property, ground) if row["hills"].any?
        row.fetch("sightings", []).each { |seen| load_sighting(property, seen) } # first: visits follow the year
        row["patches"].each { |patch_row| load_patch(property, ground, patch_row) }
        row.fetch("rules", []).each { |rule| load_rule(property, rule) }
        row.fetch("searches", []).each { |search| load_search(property, ground, search) }
      end

      # The scenario's own weather, or the broad weather of the region that a property names.
      def climate(row)
        region = row["climate"]
        JSON.generate(region ? Core::Season::BroadWeather.climate(row["latitude"], region:) : @scenario["climate"])
      end

      def load_zone(property, geometry:, **fields)
        zone = Store::Zone.new(property_id: property.id, **fields)
        zone.shape = Core::Survey::Shape.new(geometry)
        zone.save
      end

      def load_sighting(property, row)
        Store::Sighting.record(property, kind: row["kind"], said: row["said"], plant_key: row["plant"],
                                         seen_on: row["day"],
                                         began: row.fetch("began", false), person: row["person"], note: row["note"])
      end

      def load_rule(property, row)
        Store::LocalRule.create(property_id: property.id, about: row["about"], from_md: row["from"], to_md: row["to"],
                                reason: row["reason"],
                                person: row["person"], said_on: @today)
      end

      def load_course(patch, property, row)
        bench = Core::Decide::Bench.new(patch.refresh.facts(@today), property.site(@today))
        removal = Core::Knowledge.shipped.removal(row["method"])
        course = Core::Decide::Course.new(bench, removal)
        Store::Course.begin(patch, course, removal:, advised: bench.best&.removal&.key, person: row["person"],
                                           reason: row["reason"], today: @today)
      end

      def load_heights(property, ground)
        Store::Layer.keep(property, kind: "elevation", name: "Heights, 10 m", bytes: ground.heights,
                                    facts: ground.heights_facts)
      end

      def load_search(property, ground, row)
        Store::Search.record(property, Core::Survey::Shape.new(ground.shape(row)),
                             searched_on: row["day"], sight_m: row["sight"]&.to_f, people: row["people"],
                             plants: row["plants"], note: row["note"])
      end

      def load_patch(property, ground, row)
        patch = Store::Patch.new(property_id: property.id, **columns(row, PATCH))
        patch.shape = Core::Survey::Shape.new(ground.shape(row))
        patch.save
        settled = row.fetch("settled", true)
        Store::Observation.told(patch, seen_on: row["seen"], plant_key: row["plant"], settled:,
                                       note: settled ? "Named by the steward" : "Not settled")
        row.fetch("records", []).each { |record| load_record(patch, property, record) }
        load_course(patch, property, row["course"]) if row["course"]
      end

      def load_record(patch, property, row)
        return Store::Check.record(patch, **columns(row, CHECK)) if row["check"]
        return look_again(patch, row) if row["again"]

        Store::Treatment.record(patch, property.site(@today), **columns(row, TREATMENT))
      end

      # The patch as it was seen another day, in the shape it had then.
      def look_again(patch, row)
        shape = row["blob"] && Core::Survey::Shape.new(@grounds.fetch(patch.property_id).shape(row))
        amount = Core::Survey::Amount.new(cover_class: row["cover"], stems: row["sizes"], height_cm: row["height"])
        Store::Reshape.new(patch).look_again(seen_on: row["again"], amount:, shape:, people: row["people"],
                                             note: row["note"])
      end

      # The row's values under the names of the store's columns.
      def columns(row, names) = names.filter_map { |from, to| [to.to_sym, row[from]] if row.key?(from) }.to_h
    end
  end
end
