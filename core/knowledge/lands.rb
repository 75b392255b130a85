# frozen_string_literal: true

module Thistle
  module Core
    class Knowledge
      # What a schema cannot see of regions, countries, climates and their years: that a key of one file exists in
      # another.
      class Lands
        def initialize(knowledge)
          @knowledge = knowledge
        end

        # Goes through all of it. Raises Knowledge::Fault at the first that does not fit, with file and field.
        def call
          check_regions
          @knowledge.homes.each { |country, told| check_home(country, told) }
          @knowledge.climates.each { |key, climate| check_climate(key, climate) }
          @knowledge.fits.each { |key, limits| known(limits.cautions, @knowledge.cautions, "fits.yml", key) }
          known(@knowledge.regions.keys + @knowledge.climates.keys, @knowledge.broad_weather, "broad_weather.yml",
                "regions and climates")
          check_names
          check_laws
          check_sources
        end

        private

        # Every region that a file names is there.
        def check_regions
          known(@knowledge.regions.values.flat_map(&:beside), @knowledge.regions, "regions.yml", "beside")
          @knowledge.plants.merge(@knowledge.palette).each do |key, one|
            known(one.regions.except("source").values.flatten, @knowledge.regions, "#{key}.yml", "regions")
          end
        end

        def check_home(country, told)
          file = "homes.yml, #{country}"
          rows, by_clock = told.values_at("regions", "climates").compact.flatten, told.fetch("clocks", {})
          clocks = [*told["clock"], *by_clock.keys].reject { |name| Season::Clock.known?(name) }
          known(clocks, {}, file, "clock")
          known([*told["region"], *rows.filter_map { |row| row["region"] }], @knowledge.regions, file, "region")
          known(rows.filter_map { |row| row["climate"] }, @knowledge.climates, file, "climates")
          known([*rows.flat_map { |row| row.fetch("parts", []) }, *by_clock.values.flatten],
                @knowledge.places.dig(country, "names") || {}, file, "parts")
          known([*told["rule"]], @knowledge.records, file, "rule")
          known([told["source"]], @knowledge.sources, file, "source")
        end

        def check_climate(key, climate)
          known(climate.anchors, @knowledge.anchors, "climates.yml", "#{key}/anchors")
          known(climate.shown, climate.anchors.to_h { |anchor| [anchor, true] }, "climates.yml", "#{key}/shown")
          named = climate.stands_for.keys + climate.stands_for.values.map { |row| row["anchor"] }
          known(named, @knowledge.anchors, "climates.yml", "#{key}/stands_for")
        end

        def check_names
          known(@knowledge.names.keys, @knowledge.plants.merge(@knowledge.palette), "names.yml", "plants")
          @knowledge.names.each do |key, told|
            known(told.fetch("regions", {}).keys, @knowledge.regions, "names.yml", "#{key}/regions")
          end
        end

        def check_laws
          @knowledge.laws.each do |key, law|
            known(Identify::Law::DUTIES.keys.flat_map { |duty| law[duty] || [] }, @knowledge.plants, "laws.yml", key)
            known(Array(law.country), @knowledge.homes, "laws.yml", "#{key}/country")
            known(law.parts || [], @knowledge.places.dig(law.country, "names") || {}, "laws.yml", "#{key}/parts")
          end
        end

        def check_sources
          %i[laws regions anchors climates fits soils phases broad_weather normals records].each do |table|
            rows = @knowledge.public_send(table).values
            known(rows.map { |row| row.is_a?(Hash) ? row["source"] : row.source }, @knowledge.sources, "#{table}.yml",
                  "source")
          end
        end

        def known(keys, table, file, field)
          lost = keys.find { |key| !table.key?(key) }
          raise Fault, "knowledge/#{file}: #{field}: #{lost} is not known" if lost
        end
      end
    end
  end
end
