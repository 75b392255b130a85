# frozen_string_literal: true

require "date"
require "json"
require "json_schemer"
require "yaml"

module Thistle
  module Core
    # The trade as data: reads knowledge/, checks every file against its JSON Schema, then checks
    # that every key named in one file exists in another. Raises Knowledge::Fault naming file and field.
    class Knowledge
      class Fault < StandardError; end

      FOLDER = File.join(ROOT, "knowledge")
      TABLES = { "sources" => "sources", "cautions" => "told", "disposal" => "told", "parts" => "told",
                 "actives" => "actives", "formulations" => "formulations", "records" => "records",
                 "returns" => "returns", "characters" => "characters", "zones" => "zones", "anchors" => "anchors",
                 "climates" => "climates", "soils" => "soils", "phases" => "phases", "fits" => "fits",
                 "broad_weather" => "broad_weather", "kit" => "kit", "schools" => "schools", "goals" => "goals",
                 "aims" => "aims", "planting" => "planting", "crew" => "crew", "haul" => "haul",
                 "stages" => "stages", "stock" => "stock", "expect" => "expect",
                 "readying" => "readying", "places" => "places", "homes" => "homes", "nurse" => "nurse",
                 "aspects" => "aspects", "groups" => "groups", "roles" => "roles", "regions" => "regions",
                 "normals" => "normals", "names" => "names", "laws" => "laws" }.freeze

      TO_PLANT = %w[replant home].freeze # parts of a native's file that are checked by schemas of their own

      attr_reader :plants, :methods_of_removal, :characters, :actives, :formulations, :records, :cautions, :disposal,
                  :parts, :returns, :sources, :zone_kinds, :anchors, :climates, :soils, :phases, :fits,
                  :broad_weather, :kit, :schools, :goals, :aims, :planting, :crew, :haul, :stages,
                  :palette, :stock, :expect, :readying, :aspects, :groups, :places, :homes, :nurse, :policy,
                  :regions, :normals, :names, :laws

      # The shipped library, read once.
      def self.shipped = @shipped ||= new

      # The same, out of a folder where it was kept (Saved).
      def self.take_from(folder)
        @shipped ||= Saved.new(folder).library
        shipped
      end

      def initialize(folder: FOLDER)
        @folder = folder
        load_tables
        @methods_of_removal = files("methods", "method").to_h { |key, data| [key, Removal.new(key, data)] }.freeze
        @plants = files("{plants,natives}", "plant").to_h { |key, data| [key, Plant.new(key, data)] }.freeze
        @palette = natives_to_plant.freeze
        @by_name = @plants.values.reverse.flat_map do |plant|
          [*names_elsewhere(plant.key), plant.key.tr("_", " "), plant.scientific, *plant.also, plant.name]
            .map { |name| [Knowledge.folded(name), plant.key] }
        end.to_h.freeze
        @suiting = {} # filled as plants are asked for
        CrossCheck.new(self).call
        remove_instance_variable(:@schemers)
        freeze
      end

      def inspect = "#<#{self.class.name} #{plants&.size} plants>"
      def invaders = plants.values.select(&:invasive?)
      def natives = plants.values.reject(&:invasive?)

      # The same library as if it had never known a plant.
      def without(key)
        dup.tap do |other|
          other.instance_variable_set(:@plants, plants.except(key).freeze)
          other.freeze
        end
      end

      # A plant by key; raises BadInput when the library has none.
      def plant(key)
        plants.fetch(key.to_s) { raise BadInput.new("“#{key}” is not a plant in the library.", field: :plant) }
      end

      # A native to be planted, by key; raises BadInput when the library has none.
      def native(key)
        palette.fetch(key.to_s) { raise BadInput.new("“#{key}” is no native to plant here.", field: :native) }
      end

      # The key of the plant of this name, common or scientific, in any tongue, with its accents or without, author's
      # names behind it or not; nil for none.
      def key_named(text)
        words = Knowledge.folded(text.to_s).tr("_", " ").squeeze(" ").strip
        @by_name[words] || @by_name[words.split.first(2).join(" ")]
      end

      # Natives to plant of whose names one holds what was typed, with its accents or without: [Replant::Native].
      def natives_named(text)
        typed = Knowledge.folded(text.strip)
        return [] if typed.size < 3

        palette.values.select do |one|
          [one.name, one.scientific, *one.also, *names_elsewhere(one.key)]
            .any? { |name| Knowledge.folded(name).include?(typed) }
        end
      end

      # What a plant is called in regions and tongues besides (names.yml): [String].
      def names_elsewhere(key) = names.fetch(key, {}).except("source").values.flat_map(&:values).flatten.uniq

      # What people of a region call a plant, where it is another name than the file's; nil for none.
      def called(key, region) = names.dig(key, "regions", region)

      # A name in small letters without its accents.
      def self.folded(text) = text.unicode_normalize(:nfd).gsub(/\p{Mn}/, "").tr("’ʻ", "'").downcase

      # The Removal of a key, a text or a symbol. Raises BadInput (field :method) when there is none.
      def removal(key)
        methods_of_removal.fetch(key.to_s) { raise BadInput.new("“#{key}” is not a method here.", field: :method) }
      end

      # Methods that suit a plant by habit, root and stem, whether or not its file names them.
      def suiting(plant)
        @suiting[plant] ||= methods_of_removal.values.select { |removal| removal.suits?(plant) }.freeze
      end

      # {key => label} of the regions.
      def region_names = regions.transform_values(&:label)

      # The Identify::Group that a plant is in; nil for none.
      def group_of(plant) = groups.values.find { |group| group.include?(plant) }

      def source(key) = sources.fetch(key.to_s)

      private

      def load_tables
        tables = TABLES.to_h { |name, schema| [name, read(File.join(@folder, "#{name}.yml"), schema)] }
        { sources: Source, characters: Identify::Character, actives: Mix::Active, records: Mix::RecordRule,
          anchors: Season::AnchorKind, climates: Season::Climate, schools: Decide::School, goals: Decide::Goal,
          aims: Decide::Aim, aspects: Identify::Aspect,
          groups: Identify::Group, regions: Identify::Region, laws: Identify::Law }
          .each { |name, kind| instance_variable_set(:"@#{name}", rows_of(kind, tables[name.to_s])) }
        @zone_kinds = rows_of(Survey::ZoneKind, tables["zones"])
        @fits = rows_of(Season::Limits, tables["fits"].transform_keys(&:to_sym))
        @soils, @broad_weather, @normals, @formulations =
          tables.values_at("soils", "broad_weather", "normals", "formulations")
        @phases = tables["phases"].transform_keys(&:to_sym).freeze
        @planting, @places, @homes, @nurse = tables.values_at("planting", "places", "homes", "nurse")
        @names = tables["names"]
        @cautions, @disposal, @parts = tables.values_at("cautions", "disposal", "parts")
        @returns, @kit, @crew, @haul = tables.values_at("returns", "kit", "crew", "haul")
        @policy = Policy.new(tables["roles"])
        @stages, @stock, @expect, @readying = tables.values_at("stages", "stock", "expect", "readying")
      end

      # {key => Replant::Native}: of what is to be told from others, and of what is only planted.
      def natives_to_plant
        told = @plants.values.select(&:replant).to_h { |plant| [plant.key, plant.to_plant] }
        alike = Hash.new { |all, key| all[key] = [] }
        @plants.values.select(&:invasive?).each do |plant|
          plant.look_alikes.each { |pair| alike[pair["plant"]] << plant.key }
        end
        told.merge(files("palette", "native").to_h).to_h do |key, data|
          TO_PLANT.each do |part|
            error = schemer(part).validate(data[part]).first
            raise Fault, "knowledge/#{key}.yml: #{part}/#{field(error)}: #{error["error"]}" if error
          end
          [key, Replant::Native.new(key, data, alike: alike.fetch(key, []))]
        end
      end

      def rows_of(kind, table) = table.to_h { |key, row| [key, kind.new(key:, **symbols(row))] }.freeze

      def files(pattern, schema)
        Dir[File.join(@folder, pattern, "*.yml")].map { |path| [File.basename(path, ".yml"), read(path, schema)] }
      end

      def read(path, schema)
        data = YAML.safe_load_file(path)
        error = schemer(schema).validate(data).first
        raise Fault, "#{place(path)}: #{field(error)}: #{error["error"]}" if error

        data
      rescue Psych::SyntaxError => e
        raise Fault, "#{place(path)}: line #{e.line}: not YAML: #{e.problem}"
      end

      def schemer(name)
        @schemers ||= {}
        @schemers[name] ||= JSONSchemer.schema(JSON.parse(File.read(File.join(FOLDER, "schema", "#{name}.json"))))
      end

      def place(path) = "knowledge/#{path.delete_prefix("#{@folder}/")}"
      def field(error) = error["data_pointer"].empty? ? "the file" : error["data_pointer"].delete_prefix("/")
      def symbols(row) = row.transform_keys(&:to_sym)
    end
  end
end
