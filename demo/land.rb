# frozen_string_literal: true

require "yaml"

module Thistle
  module Demo
    # Loads the demo scenario through the same doors that people use: patches, treatments, checks.
    class Land
      M_PER_DEGREE = 111_132.0
      # What the scenario calls a thing, and the column that keeps it.
      PROPERTY = %w[name prefix region units latitude longitude texture stance licensed].to_h { |name| [name, name] }.freeze
      PATCH = { "code" => "code", "plant" => "plant_key", "seen" => "seen_on", "stems" => "stems", "size" => "stem_size",
                "cover" => "cover_class", "slope" => "slope", "light" => "light", "moisture" => "moisture",
                "natives" => "natives_near", "note" => "note", "radius" => "radius_m", "width" => "width_m" }.freeze
      TREATMENT = { "work" => "done_on", "method" => "method_key", "people" => "people", "crew" => "crew_size", "hours" => "hours",
                    "stems" => "stems_done", "area" => "area_m2", "active" => "active_key", "product_ml" => "product_ml",
                    "mix_ml" => "mix_ml", "applicator" => "applicator", "disposal" => "disposal", "note" => "note" }.freeze
      CHECK = { "check" => "checked_on", "resprouts" => "resprouts", "missed" => "missed", "seedlings" => "seedlings",
                "cover" => "cover_class", "note" => "note" }.freeze

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
        property = Store::Property.create(**columns(row, PROPERTY), station_seed: @scenario["station_seed"],
                                                                    climate: JSON.generate(@scenario["climate"]))
        ground = Ground.new(row)
        ground.zones.each { |kind, geometry| Store::Zone.create(property_id: property.id, kind:, geometry: JSON.generate(geometry)) }
        row["patches"].each { |patch_row| load_patch(property, ground, patch_row) }
      end

      def load_patch(property, ground, row)
        patch = Store::Patch.new(property_id: property.id, **columns(row, PATCH))
        patch.shape = Core::Survey::Shape.new(ground.shape(row))
        patch.save
        settled = row.fetch("settled", true)
        Store::Observation.told(patch, seen_on: row["seen"], plant_key: row["plant"], settled:,
                                       note: settled ? "Named by the steward" : "Not settled")
        row.fetch("records", []).each { |record| load_record(patch, property, record) }
      end

      def load_record(patch, property, row)
        return Store::Check.record(patch, **columns(row, CHECK)) if row["check"]

        Store::Treatment.record(patch, property.site(@today), **columns(row, TREATMENT))
      end

      # The row's values under the names of the store's columns.
      def columns(row, names) = names.filter_map { |from, to| [to.to_sym, row[from]] if row.key?(from) }.to_h
    end
  end
end
