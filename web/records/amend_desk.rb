# frozen_string_literal: true

module Thistle
  module Web
    module Records
      # A record as it is kept, to be corrected or taken back, with everything that it said before.
      class AmendDesk
        FORMS = { "treatment" => Work::Forms::Treatment, "check" => Recheck::Forms::Check,
                  "observation" => Survey::Forms::Observation, "planting" => Replant::Forms::Planting }.freeze
        TITLES = { "treatment" => "Work", "check" => "Check", "observation" => "Sight", "planting" => "Planting",
                   "plan" => "Season plan" }.freeze
        # What a version says, by column: the words for it. Columns that nobody typed are not among them.
        SAID = { done_on: "day", checked_on: "day", seen_on: "day", method_key: "method", people_ids: "people",
                 people: "who", crew_size: "people", hours: "hours each",
                 plants_done: "plants", stems_done: "stems", buckets: "buckets",
                 area_m2: "area", product_id: "product", active_key: "active ingredient", product_ml: "stock",
                 second_product_id: "second product", second_product_ml: "stock of the second",
                 product_g: "stock, weighed", second_product_g: "stock of the second, weighed",
                 mix_ml: "ready mix", applicator: "applicator", supervisor: "licensed person in charge",
                 licence_number: "certification number",
                 licence_category: "category", licence_expires_on: "licensed until", started_at: "began",
                 ended_at: "ended", weather_by_hand: "weather, by hand", equipment: "equipment",
                 left_over_ml: "left over",
                 left_over_went: "where that went", disposal: "where it went", seed_fall: "seed that year",
                 resprouts: "alive", missed: "missed", suckers: "suckers", seedlings: "seedlings",
                 seedlings_seen: "seedlings, how", frame_count: "seedlings in frames",
                 frame_m2: "frames together", natives: "natives by themselves",
                 searchers: "people who searched", minutes: "minutes searched",
                 sight: "how far one sees", untreated: "untreated stems beside", untreated_alive: "of them alive",
                 left_out: "left out", cover_class: "cover",
                 cover_percent: "cover, %", plant_key: "plant", settled: "certain", infested_m2: "infested",
                 density_m2: "stems/m²", height_cm: "height", plants: "plants",
                 stems_by_size: "stems by size",
                 alive_by_size: "alive by thickness", stage: "stage", plugs: "plugs", seed_g: "seed", from_on: "from",
                 to_on: "to", note: "note" }.freeze
        QUANTITIES = { area_m2: :area, frame_m2: :area, infested_m2: :area, product_ml: :volume,
                       product_g: :mass, second_product_g: :mass, second_product_ml: :volume, mix_ml: :volume,
                       left_over_ml: :volume,
                       seed_g: :mass, height_cm: :depth }.freeze
        # What is not said as it is kept: ->(value, units).
        WORDS = {
          method_key: ->(key, _) { Core::Knowledge.shipped.removal(key).name },
          product_id: ->(id, _) { Store::Product[id]&.name || id.to_s },
          second_product_id: ->(id, _) { Store::Product[id]&.name || id.to_s },
          people_ids: ->(ids, _) { Store::Person.where(id: JSON.parse(ids)).named.select_map(:name).join(", ") },
          weather_by_hand: ->(told, units) { Mix::RecordFile.spots(JSON.parse(told).values, units) },
          plant_key: ->(key, _) { Core::Knowledge.shipped.plant(key).name },
          stems_by_size: ->(told, _) { JSON.parse(told).map { |size, number| "#{number} #{size}" }.join(", ") },
          alive_by_size: ->(told, _) { JSON.parse(told).map { |size, number| "#{number} #{size}" }.join(", ") },
          seedlings_seen: ->(key, _) { Store::Check::SEEDLINGS.fetch(key) },
          natives: ->(key, _) { Store::Check::NATIVES.fetch(key) },
          cover_class: ->(key, _) { "#{Core::Survey::Cover.class_of(key).label} cover" },
          left_out: ->(yes, _) { yes ? "yes" : "no" },
          settled: ->(yes, _) { yes ? "yes" : "no" }
        }.freeze
        # act: in words; rows: [[what, before, after]].
        Version = Struct.new(:amendment, :act, :rows)

        attr_reader :record, :form, :amend

        def initialize(record, params, units, today)
          @record, @params, @units, @today = record, params, units, today
          @form = FORMS[kind]&.of(record, units, today)
          @form&.errors&.clear
          @amend = Forms::Amend.untouched({ "version" => version.to_s }, units:, today:)
        end

        def kind = record.kind
        def title = TITLES.fetch(kind)
        def patch = record.respond_to?(:patch) ? record.patch : nil
        def version = @version ||= record.amended
        def address = record.amend_address

        # What it says: [[what, value]].
        def told
          SAID.filter_map do |column, words|
            [words, said(column, record[column])] if record.values.key?(column) && !record[column].nil?
          end
        end

        # The latest first.
        def versions
          after = record.values
          record.amendments.reverse.map do |amendment|
            before = amendment.values_before
            rows = SAID.filter_map do |column, words|
              [words, said(column, before[column]), said(column, after[column])] if before.key?(column)
            end
            after = before
            Version.new(amendment, Store::Amendment::ACTS.fetch(amendment.act), rows.reject { |_, was, is| was == is })
          end
        end

        # True when it is kept; else the forms hold the complaints. Raises Outdated when someone else was first.
        def correct
          before = form.columns
          @form = FORMS.fetch(kind).new(@params, units: @units, today: @today, **limits)
          read(reasoned: true)
          changed = form.ok? ? form.columns.reject { |column, value| before[column] == value } : {}
          form.failed(:base, "You did not change anything.") if form.ok? && changed.empty?
          return false unless form.ok? && amend.ok?

          record.correct(**amend.values, **changed)
          true
        end

        # Someone else was first: both versions are shown, and what was typed is kept.
        def outdated
          record.refresh
          @version = record.amended
          amend.failed(:base, "Someone else corrected it or took it back meanwhile. Look at what it says now; " \
                              "what you typed is still here.")
          amend.raw["version"] = version.to_s
        end

        def take_back = read(reasoned: true) && record.take_back(**amend.values)
        def bring_back = read(reasoned: false) && record.bring_back(**amend.values)

        private

        def read(reasoned:)
          @amend = Forms::Amend.new(@params, units: @units, today: @today, reasoned:)
          amend.ok?
        end

        # Work, looks and plantings are never before the patch was seen; a sight may say that it was seen before.
        def limits = patch && kind != "observation" ? { seen_on: patch.seen_on } : {}

        def said(column, value)
          return "–" if value.nil?
          return @units.public_send(QUANTITIES[column], value) if QUANTITIES.key?(column)

          WORDS.fetch(column, ->(plain, _) { plain.to_s }).call(value, @units)
        end
      end
    end
  end
end
