# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      # A file's columns beside ours, and what would happen to each row.
      class ArrivalDesk
        PAGE = 100
        ORDER = %w[refuse far double change add absent same].freeze
        ASKED = 40 # names that are asked about on one page
        OFFERED = 5 # plants that a name may mean
        DAYS = { "dmy" => "day first: 3/4 is 3 April", "mdy" => "month first: 3/4 is 4 March" }.freeze

        DATES = %w[seen_on treatment.done_on check.checked_on planting.done_on].freeze

        attr_reader :arrival

        def initialize(arrival, params)
          @arrival, @params = arrival, params
        end

        # [[their column, ours or nil, [examples]]]
        def columns
          examples = arrival.arrival_rows_dataset.limit(40).map(&:cells)
          arrival.columns.map do |header, ours|
            [header, ours, examples.filter_map { |cells| cells[header]&.to_s }.uniq.first(3)]
          end
        end

        # What a person chose, remembered for files of the same columns.
        def map
          picked = @params["column"].is_a?(Hash) ? @params["column"] : {}
          chosen = arrival.columns.keys.each_with_index.to_h do |header, n|
            [header, (choices(header).keys & [picked[n.to_s]]).first]
          end
          twice = chosen.values.compact.tally.select { |_, n| n > 1 }.keys
          if twice.any?
            raise Core::BadInput.new("Two columns cannot both be #{twice.first.tr("_", " ")}.", field: :column)
          end

          apart_m = (Core::Decimal.read(@params["apart"]) || 5.0).clamp(0, 500)
          arrival.map(chosen, apart_m:, sure: @params["sure"] == "yes", names: JSON.generate(names_chosen),
                              days: (DAYS.keys & [@params["days"]]).first,
                              **%w[doubles outside].to_h { |one| [one.to_sym, @params[one] == "add" ? "add" : "skip"] })
        end

        # {ours => words}: what a heading may be, by its kind of row.
        def choices(heading)
          kind = Core::Survey::RecordColumns.kind_in(heading)
          return Core::Survey::Columns::LIST.to_h { |column| [column.key.to_s, column.label] } unless kind

          kind.columns.to_h { |column| [Core::Survey::RecordColumns.key_in(kind, column.key).to_s, column.label] }
        end

        # {text => [plant keys that it may mean, the likeliest first]} of names that nobody understood; each is asked
        # once, however many rows bear it.
        def unknown_names
          header = arrival.columns.key("plant_key") or return {}
          reading = arrival.reading
          cells = Sequel.function(:json_extract, :properties, %($."#{header.delete('"\\')}"))
          texts = arrival.arrival_rows_dataset.unordered.exclude(cells => nil).distinct.select_map(cells)
          unknown = texts.map { |text| text.to_s.strip }.uniq.reject { |text| text.empty? || reading.plant(text) }
          unknown.first(ASKED).to_h { |text| [text, Store::PlantNames.find(text).first(OFFERED)] }
        end

        # Does a date stand in it that could be two days?
        def two_days?
          dates = arrival.columns.select { |_, ours| DATES.include?(ours.to_s) }.keys
          return false if dates.empty?

          arrival.arrival_rows_dataset.unordered.select_map(:properties).any? do |properties|
            JSON.parse(properties).values_at(*dates).any? { |text| Core::Survey::Columns.two_days?(text.to_s.strip) }
          end
        end

        def shown
          (ORDER & [@params["show"]]).first || ORDER.find { |verdict| arrival.counts[verdict] } || "add"
        end

        def page = [Whole.read(@params["page"]), 1_000_000].min
        def rows = arrival.arrival_rows_dataset.where(verdict: shown).limit(PAGE, page * PAGE).all
        def more? = (arrival.counts[shown] || 0) > (page + 1) * PAGE

        # [headings, rows] of what does not reach the map: as it stands in the file or was put right, with the reason.
        def left
          headings = arrival.columns.keys
          rows = arrival.arrival_rows_dataset.where(verdict: stays_out).order(:row).lazy.map do |row|
            cells = row.cells
            [row.row, Store::Arrival::VERDICTS[row.verdict], row.reason, *row.point&.reverse || [nil, nil],
             *headings.map { |heading| cells[heading] }]
          end
          [["row", "verdict", "reason", "place latitude", "place longitude", *headings], rows]
        end

        def left? = arrival.counts.values_at(*stays_out).compact.sum.positive?

        # Rows that would reach the map as things stand.
        def coming
          arrival.counts.values_at("add", "change", "absent", *("double" if arrival.doubles == "add"),
                                   *("far" if arrival.outside == "add")).compact.sum
        end

        private

        def stays_out
          ["refuse", *("double" unless arrival.doubles == "add"), *("far" unless arrival.outside == "add")]
        end

        # What was settled before and is now; remembered for the next file.
        def names_chosen
          texts, keys = %w[named name].map { |field| @params[field].is_a?(Hash) ? @params[field] : {} }
          chosen = texts.to_h { |number, text| [text.to_s.downcase, keys[number]] }
                        .select { |_, key| Core::Knowledge.shipped.plants.key?(key) }
          Store::Mapping.remember_names(chosen) if chosen.any?
          arrival.names_kept.merge(chosen)
        end
      end
    end
  end
end
