# frozen_string_literal: true

module Thistle
  module Web
    module Accounts
      # Who did what on a property, narrowed by who, what and when; a keeper reads what belongs to no property too.
      class TrailDesk
        HEADINGS = ["When (UTC)", "Who", "What", "Of", "Number", "Which"].freeze
        # Tables in words.
        KINDS = { "accounts" => "account", "amendments" => "correction", "arrivals" => "file brought",
                  "bundle_arrivals" => "bundle", "calibrations" => "sprayer measured", "changes" => "change of shape",
                  "checks" => "check", "cleanings" => "cleaning", "comments" => "comment", "courses" => "course",
                  "course_steps" => "step of a course", "gather_places" => "place to gather",
                  "groups" => "group", "guest_links" => "guest's link",
                  "kept_searches" => "kept search", "kit_items" => "tool", "label_versions" => "label",
                  "land_plans" => "management plan", "layers" => "layer", "local_rules" => "rule of the place",
                  "memberships" => "role", "observations" => "sight", "own data" => "own data", "patches" => "patch",
                  "people" => "person", "permissions" => "permission", "phones" => "phone", "photos" => "photograph",
                  "pictures" => "photograph",
                  "planting_plans" => "planting plan", "plantings" => "planting", "products" => "product",
                  "products_in_use" => "product in use", "properties" => "property", "reports" => "report sheet",
                  "rule_settings" => "rule put aside", "searches" => "search", "season_plans" => "season plan",
                  "seed_lots" => "seed", "sightings" => "sign of the year", "site_sheets" => "site",
                  "take_counts" => "count",
                  "taps" => "tap", "tasks" => "visit", "treatments" => "work", "trial_stems" => "tag of a trial",
                  "trials" => "trial", "waterings" => "watering", "weather_files" => "weather file",
                  "work_days" => "work day", "zones" => "zone", "door" => "door", "file" => "file" }.freeze
        MANY = { "patch" => "patches", "person" => "people", "work" => "pieces of work", "seed" => "lots of seed",
                 "file brought" => "files brought", "change of shape" => "changes of shape",
                 "step of a course" => "steps of courses", "place to gather" => "places to gather",
                 "rule of the place" => "rules of the place", "rule put aside" => "rules put aside",
                 "sprayer measured" => "sprayers measured", "product in use" => "products in use",
                 "sign of the year" => "signs of the year", "tag of a trial" => "tags of trials",
                 "property" => "properties", "own data" => "files of own data", "door" => "times at the door" }.freeze
        private_constant :MANY

        # "3 patches" of a table.
        def self.counted(count, kind)
          one = KINDS.fetch(kind, kind)
          Words.count(count, one, MANY.fetch(one, "#{one}s"))
        end

        HERE = "this machine, before there were accounts"

        attr_reader :turns

        def initialize(property, params, keeper:)
          @property, @params, @keeper = property, params, keeper
          @turns = Turns.new(narrowed, params)
        end

        def rows = turns.rows.map { |row| told(row) }
        def asked(name) = @params[name].is_a?(String) ? @params[name] : ""

        # {id => name} of those who stand in it.
        def people = @people ||= Store::Account.named.select_hash(:id, :name)

        def each_row
          return enum_for(:each_row) unless block_given?

          narrowed.each { |row| yield told(row) }
        end

        private

        def told(row)
          [row.at.strftime("%F %T"), name_of(row.account_id), row.act, KINDS.fetch(row.kind, row.kind), row.row_id,
           row.said]
        end

        def name_of(id)
          return HERE if id == Store::Acting::HERE

          id.negative? ? guest(-id) : people.fetch(id, "account #{id}")
        end

        def guest(id) = "guest: #{(@guests ||= Store::GuestLink.select_hash(:id, :for_whom)).fetch(id, id)}"

        def narrowed
          here = { property_id: @property.id }
          rows = Store::Trail.where(@keeper ? Sequel.|(here, { property_id: nil }) : here)
          rows = rows.where(account_id: asked("who").to_i) if asked("who").match?(/\A-?\d{1,9}\z/)
          rows = rows.where(kind: asked("kind")) if KINDS.key?(asked("kind"))
          rows = since(rows)
          rows.reverse(:id)
        end

        def since(rows)
          text = asked("from")
          text.match?(/\A\d{4}-\d\d-\d\d\z/) ? rows.where(Sequel[:at] >= Date.iso8601(text).to_time) : rows
        rescue Date::Error
          rows
        end
      end
    end
  end
end
