# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      # The card as one page of PDF in our typeface; the vessel is the page's own drawing.
      class CardPdf
        STYLE = "<style>.level{stroke:#FFFFFF;stroke-width:1.5} .product{fill:#6A2C7F} .carrier{fill:#DCEBF2} " \
                ".extra{fill:#8A5F00} .vessel-wall{fill:none;stroke:#1E2A27;stroke-width:3} " \
                ".vessel-lid{fill:#ECE7DA;stroke:#1E2A27;stroke-width:3} .vessel-tick{stroke:#1E2A27} " \
                ".on-product{fill:#FFFFFF} .level-mark{font-size:13px;font-weight:bold;text-anchor:middle} " \
                ".out{text-anchor:start}</style>"
        MOST = 700 # letters of one text from a label; the rest is on the label

        # card: Card; vessel: its SVG; paper: a key of Habits::PAPERS.
        def initialize(card, vessel, paper)
          @paper, @card, @vessel = paper, card, vessel.sub(/<svg[^>]*>/) { |open| open + STYLE }
        end

        # The bytes.
        def render
          @pdf = Paper.open(@paper, title: @card.title)
          head
          pour
          bring
          label
          foot
          @pdf.render
        end

        private

        def head
          text @card.title, size: 22, style: :bold
          text @card.subtitle, size: 11, color: Paper::SOFT
          @pdf.move_down 8
          @card.against.each { |words| text "Not like this: #{words}", size: 12, style: :bold, color: Paper::CLAY }
          text @card.loads, size: 17, style: :bold
          @pdf.move_down 8
        end

        def pour
          top = @pdf.cursor
          @pdf.svg @vessel, at: [0, top], width: 110, enable_web_requests: false
          rows = @card.rows.map { |row| row.compact.map { |cell| Paper.plain(cell.to_s) } }
          rows.unshift(["", "Pour", "Full load", "The last"]) if @card.mixture.loads > 1
          how = { borders: [:bottom], border_color: Paper::RULE, size: 16, padding: [5, 6] }
          @pdf.bounding_box([130, top], width: @pdf.bounds.width - 130) do
            @pdf.table(rows, width: @pdf.bounds.width, cell_style: how) do |table|
              amounts = table.columns(2...rows.first.size)
              amounts.align, amounts.font_style = :right, :bold
            end
          end
          @pdf.move_cursor_to [@pdf.cursor, top - 135].min
          @pdf.move_down 10
        end

        def bring
          said = @card.to_bring.map { |what, amount| "#{amount} of #{what}" }.join(", ")
          @pdf.text "<b>Have at hand.</b> #{escaped(said)}", size: 12, inline_format: true, leading: 2
          [@card.left_over, @card.notes.join(" ")].each { |words| text words, size: 11, leading: 1 }
          @pdf.move_down 6
        end

        def label
          @card.label.each do |heading, words|
            said = "<b>#{escaped(heading)}.</b> #{escaped(words[0, MOST])}"
            @pdf.text said, size: 12, inline_format: true, leading: 2
            @pdf.move_down 3
          end
        end

        def foot
          @pdf.move_down 6
          text "The label on the container is the law, and goes before this card. Licensed people mix and apply.",
               size: 12, style: :bold
        end

        def text(words, **how) = @pdf.text(Paper.plain(words), **how)
        def escaped(words) = Paper.plain(words).gsub("&", "&amp;").gsub("<", "&lt;").gsub(">", "&gt;")
      end
    end
  end
end
