# frozen_string_literal: true

require "yaml"

module Thistle
  module Demo
    # Loads the demo scenario through the same doors that people use: patches, treatments, checks.
    class Land
      M_PER_DEGREE = 111_132.0

      def initialize(path = "#{ROOT}/demo/scenario.yml")
        @scenario = YAML.safe_load_file(path, permitted_classes: [Date])
        @today = @scenario["today"]
      end

      def load
        Store::Property.db.transaction do
          Store::Setting.write("today", @today.iso8601)
          @scenario["properties"].each { |row| load_property(row) }
        end
      end

      private

      def load_property(row)
        property = Store::Property.create(**row.slice("name", "prefix", "units", "latitude", "longitude", "texture", "stance", "licensed").transform_keys(&:to_sym),
                                          station_seed: @scenario["station_seed"], climate: JSON.generate(@scenario["climate"]))
        ground = Ground.new(row)
        ground.zones.each { |kind, geometry| Store::Zone.create(property_id: property.id, kind:, geometry: JSON.generate(geometry)) }
        row["patches"].each { |patch_row| load_patch(property, ground, patch_row) }
      end

      def load_patch(property, ground, row)
        patch = Store::Patch.new(property_id: property.id, code: row["code"], plant_key: row["plant"], seen_on: row["seen"],
                                 stems: row["stems"], stem_size: row["size"], cover_class: row["cover"], slope: row["slope"] || "flat",
                                 light: row["light"], moisture: row["moisture"], natives_near: row["natives"], note: row["note"],
                                 radius_m: row["radius"], width_m: row["width"])
        patch.shape = Core::Survey::Shape.new(ground.shape(row))
        patch.save
        Store::Observation.create(patch_id: patch.id, seen_on: row["seen"], plant_key: row["plant"], settled: row.fetch("settled", true),
                                  note: row["settled"] == false ? "Not settled" : "Named by the steward")
        patch.follow_records
        row.fetch("records", []).each { |record| load_record(patch, property, record) }
      end

      def load_record(patch, property, row)
        return load_check(patch, row) if row["check"]

        Store::Treatment.record(patch, property.site(@today), done_on: row["work"], method_key: row["method"], people: row["people"],
                                                              crew_size: row["crew"], hours: row["hours"], stems_done: row["stems"], area_m2: row["area"],
                                                              active_key: row["active"], product_ml: row["product_ml"], mix_ml: row["mix_ml"],
                                                              applicator: row["applicator"], disposal: row["disposal"], note: row["note"])
      end

      def load_check(patch, row)
        Store::Check.record(patch, checked_on: row["check"], resprouts: row["resprouts"], missed: row["missed"],
                                   seedlings: row["seedlings"], cover_class: row["cover"], note: row["note"])
      end
    end
  end
end
