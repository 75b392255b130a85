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
          [:code, "code",
           %w[code patch patch_id patch_code ref reference id name siteid site_id site spot plot occurrenceid], :text],
          [:plant_key, "plant", %w[plant plant_key species scientificname scientific_name sciname taxon common_name
                                   vernacularname weed commonname plant_common plant_name species_name latin_name
                                   botanical_name invasive invasive_plant weed_species what],
           :plant],
          [:seen_on, "date seen", %w[seen_on date eventdate observed observed_on obs_date survey_date datum first_seen
                                     date_found date_seen date_recorded date_observed recorded found_on found when],
           :date],
          [:plants, "plants counted",
           %w[plants plant_count individuals individualcount no_of_plants number_of_plants plants_counted how_many],
           :whole],
          [:stems, "stems counted",
           %w[stems stem_count count number organismquantity no_of_stems number_of_stems stems_counted qty quantity],
           :whole],
          [:stem_size, "stem size", %w[stem_size size sizeclass size_class], :size],
          [:cover_percent, "cover, percent",
           %w[cover cover_percent percent_cover pct_cover cover_pct percentcover coverpercent canopy
              cover_estimate], :percent],
          [:cover_class, "cover class, 1 to 6", %w[cover_class coverclass daubenmire], :cover_class],
          [:gross_m2, "gross area as told, m²", %w[gross_m2 gross_area area_m2 area_sq_m], :positive],
          [:infested_m2, "infested, m²", %w[infested_m2 infested infested_area infestedarea], :positive],
          [:infested_ha, "infested, hectares", %w[infested_ha hectares area_ha ha], :positive],
          [:infested_ac, "infested, acres", %w[infested_ac acres infested_acres area_ac], :positive],
          [:density_m2, "stems/m²", %w[density_m2 density], :positive],
          [:height_cm, "height, cm", %w[height_cm height], :positive],
          [:stage, "stage", %w[stage phenology phenophase lifestage], :stage],
          [:width_m, "width of a line, m", %w[width_m width], :positive],
          [:radius_m, "radius of a point, m", %w[radius_m radius], :positive],
          [:people, "who saw it", %w[people observer observers recorded_by recordedby recorder surveyor surveyors
                                     seen_by who collector], :text],
          [:note, "note", %w[note notes comment comments remarks occurrenceremarks description desc details
                             observations], :text]
        ].map { |key, label, names, reads| Column.new(key:, label:, names:, reads:) }.freeze
        BY_KEY = LIST.to_h { |column| [column.key, column] }.freeze
        HECTARE = 10_000.0

        module_function

        # {their column => ours}, each of ours once, the likelier name first: by name alone.
        def guess(headers, list = LIST)
          plain = headers.to_h do |header|
            [header, header.to_s.downcase.strip.tr(" -/", "___").gsub(/[^a-z0-9_]/, "").squeeze("_").delete_suffix("_")]
          end
          ours = list.each_with_object({}) do |column, found|
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
          # names: {text of the file => plant key} that a person settled; days: "dmy" or "mdy" where dates such as
          # 3/4/2026 stand in the file, nil where nobody said which.
          def initialize(mapping, plants, names: {}, days: nil)
            @columns = mapping.filter_map { |header, key| key && (column = BY_KEY[key.to_sym]) && [header, column] }
            @plants = Hash.new { |hash, text| hash[text] = names[text.downcase] || plants.key_named(text) }
            @days = days
          end

          # The plant of a name in the file; nil for one that is not understood.
          def plant(text) = @plants[text]

          # The same as Columns.read, of one row.
          def read(properties)
            values, notes = {}, []
            @columns.each do |header, column|
              text = properties[header].to_s.strip
              next if text.empty?

              value = value_of(column, text)
              if value.nil?
                doubt = column.reads == :date && Columns.two_days?(text)
                notes << "#{column.label} “#{text[0, 40]}” #{doubt ? "could be two days" : "was not understood"} and " \
                         "left empty"
              else
                values[column.key] = value
              end
            end
            [in_metres(values), notes]
          end

          private

          def value_of(column, text)
            case column.reads
            when :plant then @plants[text]
            when :date then Columns.date(text, @days)
            else READERS.fetch(column.reads).call(text)
            end
          end

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
          whole: ->(text) { between(text, 0..1_000_000)&.to_i },
          positive: ->(text) { between(text, 0..) },
          percent: ->(text) { between(text.delete_suffix("%"), 0..100) },
          cover_class: ->(text) { between(text, 1..6)&.to_i },
          size: ->(text) { Removal::SIZES.find { |size| size == text.downcase } },
          stage: ->(text) { Season::Phenology::STAGES.map(&:to_s).find { |stage| stage == text.downcase.tr(" ", "_") } }
        }.freeze

        def between(text, range) = Decimal.read(text)&.then { |number| number if range.cover?(number) }

        # A date as files write it. days: what comes first in 3/4/2026, "dmy" or "mdy"; nil where nobody said: then only
        # what can be read one way is read.
        def date(text, days = nil)
          return Date.new(text[0, 4].to_i, text[5, 2].to_i, text[8, 2].to_i) if text.match?(ISO)

          format = DATES.find { |pattern, _| text.match?(pattern) }&.last
          found = format ? Date.strptime(text[0, 10], format) : by_parts(text, days) || in_words(text)
          found if found&.year&.between?(1800, 2200)
        rescue Date::Error
          nil
        end

        SLASHED = %r{\A\d{1,2}[/-]\d{1,2}[/-]\d{4}\z}

        # Is it a date with two readings?
        def two_days?(text)
          first, second = text.split(%r{[/-]}).map(&:to_i)
          text.match?(SLASHED) && first != second && [first, second].all? { |number| number.between?(1, 12) }
        end

        # 25/4/2026 and 4/25/2026; of 3/4/2026 what a person said comes first.
        def by_parts(text, days)
          return unless text.match?(SLASHED)
          return if two_days?(text) && days.nil?

          first, second, year = text.split(%r{[/-]}).map(&:to_i)
          day_first = two_days?(text) ? days == "dmy" : first > 12 || (second <= 12 && days != "mdy")
          Date.new(year, *(day_first ? [second, first] : [first, second]))
        end

        WORDED = { /\A\d{1,2}[ -][A-Za-z]{3,9}[ -]\d{4}\z/ => ["%d %b %Y", "%d %B %Y"],
                   /\A[A-Za-z]{3,9} \d{1,2},? \d{4}\z/ => ["%b %d %Y", "%B %d %Y"] }.freeze

        # "9 May 2026", "9-May-2026", "May 9, 2026".
        def in_words(text)
          plain = text.tr("-", " ").delete(",")
          formats = WORDED.find { |pattern, _| text.match?(pattern) }&.last or return
          formats.each do |format|
            return Date.strptime(plain, format)
          rescue Date::Error
            next
          end
          nil
        end
      end
    end
  end
end
