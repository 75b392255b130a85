# frozen_string_literal: true

require "nokogiri"

module Thistle
  module Formats
    # What KML and GPX share: strict, offline parsing without document types or entities.
    module Xml
      MAX_TAGS = 2_000_000

      module_function

      # The Nokogiri document of the bytes, without namespaces, entities or network. Raises BadInput for what is too
      # large, declares a document type or is broken; name: what to call it.
      def parse(bytes, name)
        if bytes.bytesize > Reader::MAX_XML
          Reader.refuse("The #{name} is larger than #{Reader::MAX_XML / 1024 / 1024} MB.")
        end
        Reader.check_pieces(bytes, "<", MAX_TAGS)
        document = Nokogiri::XML(bytes) { |config| config.strict.nonet }
        if document.internal_subset # told after parsing: in any encoding, behind any comment
          Reader.refuse("The #{name} declares a document type, which could reach out of the file; it was not read.")
        end
        document.remove_namespaces!
      rescue Nokogiri::XML::SyntaxError => e
        Reader.refuse("The #{name} is cut off or damaged near line #{e.line}; nothing was taken from it.")
      end

      def text(node, path) = node.at_xpath(path)&.text&.strip

      # A document around elements that are built one at a time, so that a long one needs no more memory than a short
      # one: `opening` (with its namespaces), what the block yields to its argument, `closing`.
      def around(out, opening, closing)
        out << %(<?xml version="1.0" encoding="UTF-8"?>\n) << opening << "\n"
        yield ->(&element) { out << Nokogiri::XML::Builder.new(encoding: "UTF-8", &element).doc.root.to_xml << "\n" }
        out << closing << "\n"
      end

      def escape(text) = text.to_s.encode(xml: :text)

      # A document built with Nokogiri's builder, as a UTF-8 string.
      def build(&) = Nokogiri::XML::Builder.new(encoding: "UTF-8", &).to_xml
    end
  end
end
