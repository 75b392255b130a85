# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      # Records of herbicide on paper: a row an application, what is missing in it said.
      class RecordPdf
        HEADS = ["Day", "Place, target", "Product", "Mix", "Area", "Applicator", "Weather", "Equipment, left over",
                 "Missing"].freeze
        WIDTHS = [58, 92, 92, 70, 54, 96, 104, 88].freeze # points; the last takes what is left
        MOST = 500 # applications on paper; a season of a crew is less
        FACTS = Core::Mix::RecordRule::FACTS

        # rows: [Store::HerbicideRecords::Row]; rule: the one that the property keeps, or nil.
        def initialize(property, rule, rows)
          @property, @rule, @rows, @units = property, rule, rows, property.measures
        end

        # The bytes.
        def render
          title = "Records of herbicide, #{@property.name}"
          pdf = Paper.open(@property.habits.paper, title:, layout: :landscape)
          pdf.text Paper.plain(title), size: 16, style: :bold
          pdf.text Paper.plain(@rule ? "#{@rule.label}. #{@rule.text}" : "No rule is chosen: nothing was checked."),
                   size: 9, color: Paper::SOFT
          pdf.text "The newest #{MOST}: choose a season or a person for the rest." if @rows.size > MOST
          pdf.move_down 8
          table(pdf)
          pdf.number_pages "<page> of <total>", at: [pdf.bounds.right - 60, -8], size: 8, align: :right, width: 60
          pdf.render
        end

        private

        def table(pdf)
          widths = WIDTHS + [pdf.bounds.width - WIDTHS.sum]
          how = { borders: [:bottom], border_color: Paper::RULE, size: 8, padding: [4, 4] }
          rows = @rows.first(MOST).map { |row| cells(row) }
          pdf.table([HEADS, *rows], header: true, column_widths: widths, cell_style: how) do
            row(0).font_style = :bold
          end
        end

        def cells(row)
          told, work = row.application, row.work
          product = [UsageWords.poured(work, @units), told.registration]
          [[told.done_on.iso8601, hours(told)], [told.place, told.target, work.removal.name], product,
           [told.mix && @units.volume(told.mix)], [told.area && @units.area(told.area)],
           [told.applicator, told.certification, told.category, expiry(told)],
           [RecordFile.weather(work, @units)], [told.equipment, left_over(work)],
           [row.missing.map { |fact| FACTS.fetch(fact) }.join("; ")]]
            .map { |lines| Paper.plain(lines.compact.join("\n")) }
        end

        def hours(told) = told.started && "#{told.started} to #{told.ended}"
        def expiry(told) = told.expiry && "to #{told.expiry.iso8601}"

        def left_over(work)
          work.left_over_ml && ["#{@units.volume(work.left_over_ml)} left", work.left_over_went].compact.join(", ")
        end
      end
    end
  end
end
