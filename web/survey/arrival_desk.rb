# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      # A file's columns beside ours, and what would happen to each row.
      class ArrivalDesk
        PAGE = 100
        ORDER = %w[refuse double change add absent same].freeze

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
          keys = Core::Survey::Columns::BY_KEY.keys.map(&:to_s)
          picked = @params["column"].is_a?(Hash) ? @params["column"] : {}
          chosen = arrival.columns.keys.each_with_index.to_h { |header, n| [header, (keys & [picked[n.to_s]]).first] }
          twice = chosen.values.compact.tally.select { |_, n| n > 1 }.keys
          if twice.any?
            raise Core::BadInput.new("Two columns cannot both be #{twice.first.tr("_", " ")}.", field: :column)
          end

          apart_m = (Core::Decimal.read(@params["apart"]) || 5.0).clamp(0, 500)
          arrival.map(chosen, apart_m:, doubles: @params["doubles"] == "add" ? "add" : "skip",
                              sure: @params["sure"] == "yes")
        end

        def shown
          (ORDER & [@params["show"]]).first || ORDER.find { |verdict| arrival.counts[verdict] } || "add"
        end

        def page = [Whole.read(@params["page"]), 1_000_000].min
        def rows = arrival.arrival_rows_dataset.where(verdict: shown).limit(PAGE, page * PAGE).all
        def more? = (arrival.counts[shown] || 0) > (page + 1) * PAGE

        # Rows that would reach the map as things stand.
        def coming
          arrival.counts.values_at("add", "change", "absent", *("double" if arrival.doubles == "add")).compact.sum
        end
      end
    end
  end
end
