# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      # All of a property as layers and tables of one file (Formats::Geopackage), related by patch_id: patches as they
      # are and were, zones, searches, points of photographs; sights, treatments, checks, plantings, visits.
      class Package
        PAGE = 500 # rows in memory at a time
        ZONE = { zone_id: Integer, kind: String, name: String, keep_m: Float, note: String }.freeze
        PAST = { patch_id: Integer, from_on: String, to_on: String, gross_m2: Float, infested_m2: Float }.freeze
        SEARCH = { search_id: Integer, searched_on: String, people: String, sight_m: Float, length_m: Float,
                   area_m2: Float, minutes: Integer, found: String, absent: String, note: String }.freeze
        PICTURE = { picture_id: Integer, patch_id: Integer, taken_on: String, moment: String, filename: String,
                    direction: Float }.freeze
        # Tables without a place of their own: their rows' model, and columns with their classes.
        RECORDS = {
          "observations" => [Store::Observation,
                             { seen_on: String, plant_key: String, settled: Integer, probability: Float, stage: String,
                               plants: Integer, stems: Integer, gross_m2: Float, infested_m2: Float,
                               cover_class: Integer, cover_percent: Float, height_cm: Float, people: String,
                               note: String }],
          "treatments" => [Store::Treatment,
                           { done_on: String, method_key: String, crew_size: Integer, hours: Float,
                             plants_done: Integer, stems_done: Integer, area_m2: Float, active_key: String,
                             product_ml: Float, product_g: Float, mix_ml: Float, applicator: String, people: String,
                             started_at: String, ended_at: String, equipment: String, disposal: String,
                             note: String }],
          "checks" => [Store::Check,
                       { treatment_id: Integer, checked_on: String, resprouts: Integer, missed: Integer,
                         suckers: Integer, seedlings: Integer, cover_class: Integer, people: String, note: String }],
          "plantings" => [Store::Planting,
                          { native_key: String, plugs: Integer, planted_count: Integer, seed_g: Float, area_m2: Float,
                            from_on: String, to_on: String, done_on: String, origin: String, supplier: String }],
          "visits" => [Store::Task,
                       { kind: String, due_on: String, done_on: String, reason: String, treatment_id: Integer }]
        }.freeze

        def initialize(property)
          @property = property
        end

        # {name => [rows, {column => class}, :table where they have no shape]}, as Geopackage.write takes them.
        def layers
          records = RECORDS.to_h { |name, (model, types)| [name, [records(model, types), keyed(model, types), :table]] }
          { "patches" => [patches, { patch_id: Integer, **Core::Survey::Columns::WRITTEN }],
            "past_shapes" => [past, PAST], "zones" => [zones, ZONE], "searches" => [searches, SEARCH],
            "photographs" => [pictures, PICTURE], **records }
        end

        private

        def key_of(model) = :"#{{ Store::Task => "visit" }.fetch(model) { model.name.split("::").last.downcase }}_id"
        def keyed(model, types) = { key_of(model) => Integer, patch_id: Integer, **types }

        # Rows of a dataset in the order of their ids, a page at a time.
        def each_of(dataset)
          Enumerator.new do |all|
            last = 0
            until (page = dataset.unordered.where(Sequel[:id] > last).order(:id).limit(PAGE).all).empty?
              page.each { |row| all << row }
              last = page.last.id
            end
          end.lazy
        end

        def live = @property.live_patches.unordered
        def row(shape, **properties) = { shape:, properties: }

        def patches
          each_of(live).map { |one| row(one.shape, patch_id: one.id, **Core::Survey::Columns.of(one)) }
        end

        def past
          each_of(Store::PatchShape.where(patch_id: live.select(:id))).map do |one|
            row(Core::Survey::Shape.stored(one.geometry), **one.values.slice(*PAST.keys))
          end
        end

        def zones
          @property.zones_shown.map do |one|
            row(one.shape, zone_id: one.id, kind: one.kind, name: one.name, keep_m: one.distance_kept.to_f,
                           note: one.note)
          end
        end

        def searches
          each_of(Store::Search.where(property_id: @property.id, deleted_at: nil)).map do |one|
            found = one.plants.select { |_, there| there }.keys
            row(one.seen_ground, search_id: one.id, found: found.join(" "), absent: one.absences.join(" "),
                                 **one.values.slice(*SEARCH.keys - %i[search_id found absent]))
          end
        end

        # Those that know where they were taken.
        def pictures
          placed = Store::Picture.live.where(patch_id: live.select(:id)).exclude(latitude: nil)
          each_of(placed.select(*Store::Picture::LIGHT, :latitude, :longitude, :direction)).map do |one|
            point = { "type" => "Point", "coordinates" => [one.longitude, one.latitude] }
            row(Core::Survey::Shape.new(point), picture_id: one.id, **one.values.slice(*PICTURE.keys - [:picture_id]))
          end
        end

        def records(model, types)
          found = model.where(patch_id: live.select(:id))
          found = found.where(deleted_at: nil) if model.columns.include?(:deleted_at)
          each_of(found).map do |one|
            row(nil, key_of(model) => one.id, patch_id: one.patch_id, **one.values.slice(*types.keys))
          end
        end
      end
    end
  end
end
