# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Reports
        # A chapter of a report as plain data, which the page (views/records/_part), the PDF (Reports::Pdf), JSON and
        # the file of a plan all read. Each block is a hash with its "kind":
        #   text, caution, note   "text", "source"
        #   heading               "text", "href"
        #   list                  "items": [[text, source]]
        #   figures               "items": [[value, label, href]]
        #   table                 "heads", "rows": [[cell]], "numbers": columns set to the right, "hrefs": one a row
        #   plot                  "svg", "text": what it shows
        #   pictures              "items": [[id of a picture, words]], side by side
        class Part
          attr_reader :key, :title, :blocks

          def initialize(key, title)
            @key, @title, @blocks = key, title, []
            yield self if block_given?
          end

          def empty? = blocks.empty?
          def to_h = { "key" => key, "title" => title, "blocks" => blocks }

          def text(words, source: nil) = words && add("text", "text" => words, "source" => source)
          def caution(words, source: nil) = add("caution", "text" => words, "source" => source)
          def note(words) = add("note", "text" => words)
          def heading(words, href: nil) = add("heading", "text" => words, "href" => href)
          def list(items) = items.any? && add("list", "items" => items.map { |item| Array(item) })
          def figures(items) = items.any? && add("figures", "items" => items)
          def plot(svg, words) = add("plot", "svg" => svg, "text" => words)
          def pictures(items) = items.any? && add("pictures", "items" => items)

          # numbers: columns of numbers; hrefs: where each row's records stand.
          def table(heads, rows, numbers: [], hrefs: nil)
            cells = rows.map { |row| row.map(&:to_s) }
            rows.any? && add("table", "heads" => heads, "rows" => cells, "numbers" => numbers, "hrefs" => hrefs)
          end

          private

          def add(kind, block) = @blocks << { "kind" => kind, **block.compact }
        end
      end
    end
  end
end
