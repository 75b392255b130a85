# frozen_string_literal: true

require "prawn"
require "prawn-svg"
require "prawn/table"

module Thistle
  module Web
    # Pages of PDF in our typeface, on the paper of the land.
    module Paper
      FONT = { normal: "#{ROOT}/public/fonts/atkinson-400.ttf", bold: "#{ROOT}/public/fonts/atkinson-700.ttf" }.freeze
      INK, SOFT, RULE, CLAY = "1E2A27", "55615C", "D9D1BD", "A8462A"

      module_function

      # A Prawn::Document to draw on. paper: a key of Habits::PAPERS.
      def open(paper, title:, layout: :portrait)
        pdf = Prawn::Document.new(page_size: paper.upcase, page_layout: layout, margin: 40,
                                  info: { Title: title, Creator: "Nimble Thistle" })
        pdf.font_families.update("Atkinson" => FONT)
        pdf.font("Atkinson")
        pdf.fill_color INK
        pdf
      end

      # What the typeface has no drawing for is left out.
      def plain(words) = words.to_s.tr("\u202F", " ").gsub(/[^\u0020-\u024F\u2010-\u203A\n²³½¼]/, "")
    end
  end
end
