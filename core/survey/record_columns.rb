# frozen_string_literal: true

module Thistle
  module Core
    module Survey
      # What past work, checks and plantings are made of in a table: a row names its patch by its code. The columns that
      # files use, how each value is read, and what a row cannot do without.
      module RecordColumns
        # key: "treatment"…; label: of its rows; columns: [Columns::Column]; needs: columns without which no table is
        # one of these, each any of several; asks: what a row must say, each any of several, with the words where it
        # does not.
        Kind = Value.define(:key, :label, :columns, :needs, :asks)

        def self.column(key, label, names, reads) = Columns::Column.new(key:, label:, names:, reads:)
        private_class_method :column

        CODE = %w[patch code patch_code patch_id site site_id siteid spot plot ref].freeze
        PEOPLE = %w[people who crew_names observer observers volunteers names done_by checked_by by].freeze
        NOTE = %w[note notes comment comments remarks details].freeze

        KINDS = [
          Kind.new(
            key: "treatment", label: "treatments", needs: [%i[code], %i[done_on], %i[method_key]],
            asks: { %i[done_on] => "its day", %i[method_key] => "its method" },
            columns: [
              column(:code, "patch", CODE, :text),
              column(:done_on, "done on", %w[done_on date treated treated_on date_treated treatment_date work_date],
                     :date),
              column(:method_key, "method", %w[method treatment_method treatment removal how technique control_method],
                     :method),
              column(:people, "people", PEOPLE, :text),
              column(:crew_size, "people, number",
                     %w[crew crew_size people_count number_of_people no_of_people headcount volunteers_count], :whole),
              column(:hours, "hours each", %w[hours_each hours hrs time_hours duration], :positive),
              column(:hours_all, "hours of all together", %w[total_hours person_hours volunteer_hours crew_hours
                                                             hours_total man_hours], :positive),
              column(:plants_done, "plants done", %w[plants plants_done plants_removed no_of_plants number_pulled],
                     :whole),
              column(:stems_done, "stems done", %w[stems stems_done stems_cut stems_treated no_of_stems count], :whole),
              column(:area_m2, "ground, m²", %w[area_m2 area_sq_m treated_m2], :positive),
              column(:area_ha, "ground, hectares", %w[area_ha hectares ha treated_ha], :positive),
              column(:area_ac, "ground, acres", %w[area_ac acres treated_acres], :positive),
              column(:active_key, "active ingredient", %w[active active_ingredient herbicide chemical ai], :active),
              column(:product_ml, "product, mL", %w[product_ml product_used_ml stock_ml amount_ml ml], :positive),
              column(:mix_ml, "mix, mL", %w[mix_ml mix_used_ml total_mix_ml], :positive),
              column(:applicator, "who applied it", %w[applicator applied_by licensed_applicator], :text),
              column(:note, "note", NOTE, :text)
            ]
          ),
          Kind.new(
            key: "check", label: "checks",
            needs: [%i[code], %i[checked_on], %i[resprouts missed seedlings cover_class]],
            asks: { %i[checked_on] => "its day", %i[resprouts missed seedlings cover_class] => "what was alive" },
            columns: [
              column(:code, "patch", CODE, :text),
              column(:checked_on, "checked on", %w[checked_on date checked date_checked check_date visit_date monitored
                                                   monitoring_date when], :date),
              column(:resprouts, "resprouts", %w[resprouts alive resprouted regrowth live stems_alive survivors
                                                 regrown], :whole),
              column(:missed, "missed", %w[missed missed_plants missed_stems], :whole),
              column(:seedlings, "seedlings", %w[seedlings new_seedlings no_of_seedlings], :whole),
              column(:suckers, "suckers", %w[suckers root_suckers], :whole),
              column(:cover_class, "cover class, 1 to 6", %w[cover_class coverclass], :cover_class),
              column(:people, "people", PEOPLE, :text),
              column(:note, "note", NOTE, :text)
            ]
          ),
          Kind.new(
            key: "planting", label: "plantings", needs: [%i[code], %i[native_key], %i[done_on]],
            asks: { %i[native_key] => "the native", %i[done_on] => "its day", %i[area_m2] => "its ground" },
            columns: [
              column(:code, "patch", CODE, :text),
              column(:native_key, "native", %w[native native_plant species planted plant plant_name scientific_name],
                     :native),
              column(:done_on, "planted on", %w[planted_on date date_planted planting_date done_on when], :date),
              column(:plugs, "plants put in", %w[plants plugs count number pots no_of_plants quantity qty],
                     :whole),
              column(:area_m2, "ground, m²", %w[area_m2 bed_m2 area_sq_m], :positive),
              column(:origin, "origin", %w[origin provenance seed_source], :text),
              column(:supplier, "supplier", %w[supplier nursery], :text)
            ]
          )
        ].to_h { |kind| [kind.key, kind] }.freeze

        module_function

        # The Kind whose columns these headings hold; nil where they hold those of none. Of several, the one that needs
        # most.
        def kind_of(headings)
          KINDS.values.find do |kind|
            found = guess(kind, headings).values.compact
            kind.needs.all? { |any| found.intersect?(any) }
          end
        end

        # {heading => column}, each column once.
        def guess(kind, headings) = Columns.guess(headings, kind.columns)

        # The same of headings as `named` calls them: {heading => "treatment.done_on"}.
        def guess_in(kind, named)
          bare = named.to_h { |heading| [heading.delete_prefix("#{kind.label}: "), heading] }
          guess(kind, bare.keys).to_h { |heading, column| [bare[heading], column && key_in(kind, column).to_s] }
        end

        # The Kind of a heading in a file; nil for one of what stands on the ground.
        def kind_in(heading) = KINDS.values.find { |kind| heading.start_with?("#{kind.label}: ") }

        # What a heading is called within a file, so that those of two sheets stay apart.
        def named(kind, heading) = "#{kind.label}: #{heading}"
        def key_in(kind, column) = :"#{kind.key}.#{column}"

        # Reads rows of a kind under a mapping {heading in the file => "treatment.done_on"}.
        class Reading
          # days: as Columns::Reading takes it.
          def initialize(kind, mapping, library, days: nil)
            own = kind.columns.to_h { |column| [RecordColumns.key_in(kind, column.key).to_s, column] }
            @columns = mapping.filter_map { |heading, key| (column = own[key.to_s]) && [heading, column] }
            @kind, @library, @days = kind, library, days
          end

          # [{column => value}, [what could not be read]]. Raises BadInput for a row that does not say what it must.
          def read(properties)
            values, notes = {}, []
            @columns.each do |heading, column|
              text = properties[heading].to_s.strip
              next if text.empty?

              value = value_of(column, text)
              value.nil? ? notes << unread(column, text) : values[column.key] = value
            end
            refuse_without(values, notes)
            [by_each(in_metres(values), notes), notes]
          end

          private

          # Hours of all together are parted among those who were there; without their number they stay out.
          def by_each(values, notes)
            all = values.delete(:hours_all) or return values
            crew = values[:crew_size].to_i
            crew.positive? ? values[:hours] ||= all / crew : notes << "hours of all together need the number of people"
            values
          end

          def value_of(column, text)
            case column.reads
            when :date then Columns.date(text, @days)
            when :method then named(@library.methods_of_removal, text)
            when :active then named(@library.actives, text)
            when :native then named(@library.palette, text)
            else Columns::READERS.fetch(column.reads).call(text)
            end
          end

          # The key of what is called so, in whatever capitals: by its key, its name, its scientific name.
          def named(some, text)
            @plain ||= Hash.new { |all, list| all[list] = list.flat_map { |key, one| called(key, one) }.to_h }
            @plain[some][plain(text)]
          end

          def called(key, one)
            names = [key, one.name, *(one.scientific if one.respond_to?(:scientific))]
            names.map { |name| [plain(name), key] }
          end

          def plain(text) = text.to_s.downcase.gsub(/[^a-z0-9]+/, " ").strip

          def unread(column, text)
            doubt = column.reads == :date && Columns.two_days?(text) ? "could be two days" : "was not understood"
            "#{column.label} “#{text[0, 40]}” #{doubt}"
          end

          def refuse_without(values, notes)
            asks = { %i[code] => "its patch", **@kind.asks }
            # without it the record would stand in no book of herbicide
            asks[%i[active_key]] = "its active ingredient" if herbicide?(values)
            lacking = asks.reject { |any, _| any.any? { |key| values.key?(key) } }
            return if lacking.empty?

            why = notes.empty? ? "" : " (#{notes.join("; ")})"
            raise BadInput.new("It does not say #{lacking.values.join(", ")}#{why}.", field: :row)
          end

          def herbicide?(values) = values[:method_key] && @library.removal(values[:method_key]).herbicide?

          def in_metres(values)
            hectares, acres = values.delete(:area_ha), values.delete(:area_ac)
            area = (hectares && (hectares * Columns::HECTARE)) || (acres && (acres * Units::M2_PER_ACRE))
            values[:area_m2] ||= area if area
            values
          end
        end
      end
    end
  end
end
