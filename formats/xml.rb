# frozen_string_literal: true

require "nokogiri"

module Thistle
  module Formats
    # What KML and GPX share: strict, offline parsing without entities.
    module Xml
      module_function

      def parse(bytes, name)
        document = Nokogiri::XML(bytes) { |config| config.strict.nonet }
        document.remove_namespaces!
      rescue Nokogiri::XML::SyntaxError => e
        Reader.refuse("The #{name} is cut off or damaged near line #{e.line}; nothing was taken from it.")
      end

      def text(node, path) = node.at_xpath(path)&.text&.strip
    end
  end
end
