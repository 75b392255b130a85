# frozen_string_literal: true

module Thistle
  module Web
    # docs/glossary.md as the page shows it.
    module Glossary
      PATH = "#{ROOT}/docs/glossary.md".freeze
      # terms: as a line names them, "rate, concentration"; words: what they mean.
      Entry = Core::Value.define(:terms, :words) do
        def each_term = terms.split(", ")
        def id = terms.downcase.gsub(/[^a-z]+/, "-")
      end
      # Words that everybody has, or that pages use in their plain sense too: they stand in the glossary, and no page
      # underlines them.
      EVERYDAY = %w[ask band bench brief check concentration course cover drift girdle go label no outlook patch
                    property quiet rate rule school search sucker visit wait zone].freeze
      UNDERLINED = ["The trade", "The software"].freeze # parts

      module_function

      # {heading => [Entry]}
      def parts
        @parts ||= File.read(PATH).split(/^## /).drop(1).to_h do |part|
          heading, *lines = part.lines(chomp: true)
          [heading, lines.grep(/\A- /).flat_map { |line| entries(line) }]
        end
      end

      # {term => [id in the page, words]} of what pages underline at its first use.
      def terms
        @terms ||= parts.values_at(*UNDERLINED).flatten.flat_map do |entry|
          (entry.each_term - EVERYDAY).map { |term| [term, [entry.id, entry.words]] }
        end.to_h
      end

      # A line may hold two terms that explain each other.
      def entries(line)
        line.scan(/\*\*(.+?)\*\*: (.+?)(?= \*\*|\z)/).map { |terms, words| Entry.new(terms:, words: words.delete("`")) }
      end
      private_class_method :entries
    end
  end
end
