# frozen_string_literal: true

module Thistle
  module Web
    # docs/glossary.md as the page shows it.
    module Glossary
      PATH = "#{ROOT}/docs/glossary.md".freeze
      Entry = Core::Value.define(:terms, :words)

      module_function

      # {heading => [Entry]}
      def parts
        @parts ||= File.read(PATH).split(/^## /).drop(1).to_h do |part|
          heading, *lines = part.lines(chomp: true)
          [heading, lines.grep(/\A- /).flat_map { |line| entries(line) }]
        end
      end

      # A line may hold two terms that explain each other.
      def entries(line)
        line.scan(/\*\*(.+?)\*\*: (.+?)(?= \*\*|\z)/).map { |terms, words| Entry.new(terms:, words: words.delete("`")) }
      end
      private_class_method :entries
    end
  end
end
