# frozen_string_literal: true

module Thistle
  module Core
    module Survey
      # What a patch is made of in a table: the names that files use for each column, how a value is read, and what
      # is written. The same list serves the mapping step, the import and every export.
      module Columns
        Column = Value.define(:key, :label, :names, :reads)
        ISO = /\A\d{4}-\d\d-\d\d/
        DATES = { %r{\A\d{4}/\d\d?/\d\d?\z} => "%Y/%m/%d", /\A\d{8}\z/ => "%Y%m%d",
                  /\A\d{1,2}\.\d{1,2}\.\d{4}\z/ => "%d.%m.%Y" }.freeze

        LIST = [
          [:code, "code", %w[code patch patch_id id name siteid site_id site spot plot occurrenceid], :text],
          [:plant_key, "plant", %w[plant plant_key species scientificname scientific_name sciname taxon common_name
                                   vernacularname weed commonname],
           :plant],
          [:seen_on, "date seen", %w[seen_on date eventdate observed observed_on obs_date survey_date datum first_seen],
           :date],
          [:plants, "plants counted", %w[plants plant_count individuals individualcount], :whole],
          [:stems, "stems counted", %w[stems stem_count count number organismquantity], :whole],
          [:stem_size, "stem size", %w[stem_size size sizeclass size_class], :size],
          [:cover_percent, "cover, percent",
           %w[cover cover_percent percent_cover pct_cover cover_pct percentcover coverpercent canopy], :percent],
          [:cover_class, "cover class, 1 to 6", %w[cover_class coverclass daubenmire], :cover_class],
          [:gross_m2, "gross area as told, m²", %w[gross_m2 gross_area area_m2], :positive],
          [:infested_m2, "infested, m²", %w[infested_m2 infested infested_area infestedarea], :positive],
          [:infested_ha, "infested, hectares", %w[infested_ha hectares area_ha ha], :positive],
          [:infested_ac, "infested, acres", %w[infested_ac acres infested_acres area_ac], :positive],
          [:density_m2, "stems a square metre", %w[density_m2 density], :positive],
          [:height_cm, "height, cm", %w[height_cm height], :positive],
          [:stage, "stage", %w[stage phenology phenophase lifestage], :stage],
          [:width_m, "width of a line, m", %w[width_m width], :positive],
          [:radius_m, "radius of a point, m", %w[radius_m radius], :positive],
          [:note, "note", %w[note notes comment comments remarks occurrenceremarks description desc], :text]
        ].map { |key, label, names, reads| Column.new(key:, label:, names:, reads:) }.freeze
        BY_KEY = LIST.to_h { |column| [column.key, column] }.freeze
        HECTARE = 10_000.0

        module_function

        # {their column => ours}, each of ours once, the likelier name first: by name alone.
        def guess(headers)
          plain = headers.to_h do |header|
            [header, header.to_s.downcase.strip.tr(" -", "__").gsub(/[^a-z0-9_]/, "").delete_suffix("_")]
          end
          ours = LIST.each_with_object({}) do |column, found|
            free = plain.except(*found.keys)
            header = column.names.lazy.filter_map { |name| named(name, free) }.first
            found[header] = column.key if header
          end
          headers.to_h { |header| [header, ours[header]] }
        end

        # The free header of that name, in whatever words it is written.
        def named(name, free) = free.find { |_, words| words == name || words.delete("_") == name }&.first

        # [{column => value}, [what could not be read]] of a row under a mapping {their column => ours}.
        def read(properties, mapping, plants) = Reading.new(mapping, plants).read(properties)

        # Reads rows of one file: the mapping is looked up once, and a plant's name that comes again is not sought
        # again.
        class Reading
          def initialize(mapping, plants)
            @columns = mapping.filter_map { |header, key| [header, BY_KEY.fetch(key.to_sym)] if key }
            @plants = Hash.new { |hash, text| hash[text] = plants.key_named(text) }
          end

          # The same as Columns.read, of one row.
          def read(properties)
            values, notes = {}, []
            @columns.each do |header, column|
              text = properties[header].to_s.strip
              next if text.empty?

              value = column.reads == :plant ? @plants[text] : READERS.fetch(column.reads).call(text)
              if value.nil?
                notes << "#{column.label} “#{text[0, 40]}” was not understood and left empty"
              else
                values[column.key] = value
              end
            end
            [in_metres(values), notes]
          end

          private

          def in_metres(values)
            hectares, acres = values.delete(:infested_ha), values.delete(:infested_ac)
            area = (hectares && (hectares * HECTARE)) || (acres && (acres * Units::M2_PER_ACRE))
            values[:infested_m2] ||= area if area
            values
          end
        end

        # What is written of a patch: our names, plain values.
        def of(patch)
          plant = patch.plant
          { code: patch.code, plant: plant&.name, scientific_name: plant&.scientific, state: patch.state,
            seen_on: patch.seen_on&.iso8601,
            gross_m2: patch.gross_m2&.round(2), infested_m2: patch.infested_m2&.round(2),
            cover_class: patch.cover_class,
            cover_percent: patch.cover_percent, plants: patch.plants, stems: patch.stems, stem_size: patch.stem_size,
            density_m2: patch.density_m2,
            height_cm: patch.height_cm, stage: patch.stage, width_m: patch.width_m, radius_m: patch.radius_m,
            note: patch.note }
        end

        # The names of what is written, with the class of their values.
        WRITTEN = { code: String, plant: String, scientific_name: String, state: String, seen_on: String,
                    gross_m2: Float, infested_m2: Float,
                    cover_class: Integer, cover_percent: Float, plants: Integer, stems: Integer, stem_size: String,
                    density_m2: Float,
                    height_cm: Float,
                    stage: String, width_m: Float, radius_m: Float, note: String }.freeze

        # How a column's text is read; nil for what cannot be.
        READERS = {
          text: ->(text) { text[0, 2000] },
          date: ->(text) { date(text) },
          whole: ->(text) { between(text, 0..1_000_000)&.to_i },
          positive: ->(text) { between(text, 0..) },
          percent: ->(text) { between(text.delete_suffix("%"), 0..100) },
          cover_class: ->(text) { between(text, 1..6)&.to_i },
          size: ->(text) { Removal::SIZES.find { |size| size == text.downcase } },
          stage: ->(text) { Season::Phenology::STAGES.map(&:to_s).find { |stage| stage == text.downcase.tr(" ", "_") } }
        }.freeze

        def between(text, range) = Decimal.read(text)&.then { |number| number if range.cover?(number) }

        # Only dates that can be read one way: 03/04/2026 could be two days.
        def date(text)
          return Date.new(text[0, 4].to_i, text[5, 2].to_i, text[8, 2].to_i) if text.match?(ISO)

          format = DATES.find { |pattern, _| text.match?(pattern) }&.last or return
          found = Date.strptime(text[0, 10], format)
          found if found.year.between?(1800, 2200)
        rescue Date::Error
          nil
        end
      end
    end
  end
end
