# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Reports
        # A report on paper in our typeface: its title, its parts as they stand on the page, numbered pages.
        class Pdf
          SMALL = 8
          CELL = { borders: [:bottom], border_color: Paper::RULE, size: 8.5, padding: [3, 5] }.freeze
          PICTURE = 190 # points high
          WASH = "F3E7C4"

          # parts: [Hash] as Part#to_h; paper: a key of Habits::PAPERS; body: size of the text in points, larger for a
          # wall.
          def initialize(title, subtitle, parts, paper, body: 10)
            @title, @subtitle, @parts, @paper, @body = title, subtitle, parts, paper, body
          end

          # The bytes.
          def render
            @pdf = Paper.open(@paper, title: @title)
            say @title, size: @body * 2, style: :bold
            say @subtitle, size: @body + 1, color: Paper::SOFT
            @parts.each { |part| chapter(part) }
            @pdf.number_pages "<page> of <total>", at: [@pdf.bounds.right - 60, -12], size: SMALL, align: :right,
                                                   width: 60
            @pdf.render
          end

          private

          def chapter(part)
            @pdf.start_new_page if @pdf.cursor < 110
            @pdf.move_down 14
            say part["title"], size: @body * 1.4, style: :bold
            @pdf.stroke_color Paper::RULE
            @pdf.stroke_horizontal_rule
            @pdf.move_down 6
            part["blocks"].each { |block| send(:"draw_#{block["kind"]}", block) }
          end

          def draw_text(block) = paragraph(block["text"])

          def draw_heading(block)
            @pdf.start_new_page if @pdf.cursor < 70
            @pdf.move_down 5
            say block["text"], size: @body * 1.1, style: :bold
          end

          def draw_note(block)
            @pdf.indent(10) { paragraph(block["text"]) }
          end

          def draw_caution(block)
            words = Paper.plain(block["text"])
            @pdf.table([[words]], width: @pdf.bounds.width,
                                  cell_style: { background_color: WASH, borders: [], size: @body, padding: [5, 8] })
            @pdf.move_down 5
          end

          def draw_list(block)
            block["items"].map(&:first).each do |words|
              @pdf.indent(10) { say "• #{words}", size: @body, leading: 1.5, indent_paragraphs: -8 }
            end
            @pdf.move_down 4
          end

          def draw_figures(block)
            block["items"].each_slice(4) do |some|
              cells = some.map { |value, label, _| "<b>#{escaped(value)}</b>\n<font size='8'>#{escaped(label)}</font>" }
              cells << "" while cells.size < 4
              @pdf.table([cells], width: @pdf.bounds.width,
                                  cell_style: { borders: [], size: 14, inline_format: true, padding: [3, 4] })
            end
            @pdf.move_down 4
          end

          def draw_table(block)
            rows = [block["heads"], *block["rows"]].map { |row| row.map { |cell| Paper.plain(cell) } }
            numbers = block["numbers"]
            @pdf.table(rows, header: true, width: @pdf.bounds.width, cell_style: CELL) do |table|
              table.row(0).font_style = :bold
              numbers.each { |n| table.columns(n).align = :right }
            end
            @pdf.move_down 8
          end

          def draw_plot(block)
            @pdf.start_new_page if @pdf.cursor < 360
            @pdf.svg block["svg"], width: @pdf.bounds.width, enable_web_requests: false
            say block["text"], size: SMALL, color: Paper::SOFT
            @pdf.move_down 6
          end

          # Two side by side; one that cannot be drawn says so.
          def draw_pictures(block)
            wide = (@pdf.bounds.width - 10) / 2
            block["items"].each_slice(2) do |pair|
              @pdf.start_new_page if @pdf.cursor < PICTURE + 30
              top = @pdf.cursor
              pair.each_with_index do |(id, words), n|
                @pdf.bounding_box([n * (wide + 10), top], width: wide) { picture(id, words, wide) }
              end
              @pdf.move_cursor_to top - PICTURE - 26
            end
          end

          def picture(id, words, wide)
            bytes = Store::Picture.live[id]&.bytes
            bytes ? @pdf.image(StringIO.new(bytes), fit: [wide, PICTURE]) : say("No picture.", size: @body)
            say words, size: SMALL, color: Paper::SOFT
          rescue Prawn::Errors::UnsupportedImageType
            say "This picture cannot be put on paper: #{words}", size: SMALL, color: Paper::SOFT
          end

          def paragraph(words)
            say words, size: @body, leading: 1.5
            @pdf.move_down 5
          end

          def say(words, color: Paper::INK, **how)
            @pdf.fill_color color
            @pdf.text Paper.plain(words), **how
            @pdf.fill_color Paper::INK
          end

          def escaped(words) = Paper.plain(words).gsub("&", "&amp;").gsub("<", "&lt;")
        end
      end
    end
  end
end
