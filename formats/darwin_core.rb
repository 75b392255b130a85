# frozen_string_literal: true

require "csv"
require "json"

module Thistle
  module Formats
    # Darwin Core (TDWG) occurrence records: one row as CSV (RFC 4180), many as an archive (a zip of meta.xml,
    # eml.xml and occurrence.txt, after the Darwin Core text guide).
    module DarwinCore
      TERMS = %w[occurrenceID basisOfRecord eventDate scientificName family vernacularName
                 identificationVerificationStatus identifiedBy dateIdentified identificationRemarks recordedBy
                 decimalLatitude decimalLongitude geodeticDatum footprintWKT footprintSRS samplingProtocol
                 samplingEffort organismQuantity organismQuantityType dynamicProperties occurrenceRemarks
                 occurrenceStatus].freeze
      NAMESPACE = "http://rs.tdwg.org/dwc/terms/"
      TEXT = "http://rs.tdwg.org/dwc/text/"

      module_function

      # rows: hashes by term; a term that a row does not know stays empty. Answers `out`.
      def write(rows, out = +"", col_sep: ",")
        CsvFile.write(TERMS, rows.lazy.map { |row| row.values_at(*TERMS) }, out, col_sep:)
      end

      # A zip file at a path: the rows with their description.
      def archive(rows, path, title:)
        Archive.pack(path, "meta.xml" => meta, "eml.xml" => eml(title),
                           "occurrence.txt" => ->(out) { write(rows, out, col_sep: "\t") })
      end

      # [Feature] from the unpacked files of an archive: {name => bytes}.
      def read(files)
        core = Xml.parse(files.fetch("meta.xml"), "meta.xml")
                  .at_xpath("//core") or Reader.refuse("The archive's meta.xml names no core table.")
        name = Xml.text(core, "files/location")
        bytes = files[name] or Reader.refuse("The archive names #{name.inspect[0, 60]} as its table, " \
                                             "but does not hold it.")
        Reader.check_pieces(bytes, "\n\t,")
        columns = core.xpath("id | coreid | field[@index]").to_h do |field|
          [field["index"].to_i, field["term"]&.split("/")&.last || "id"]
        end
        rows = CSV.parse(Text.utf8(bytes), col_sep: mark(core["fieldsTerminatedBy"] || "\t"),
                                           quote_char: quote(core["fieldsEnclosedBy"]),
                                           liberal_parsing: true)
        rows.drop(core["ignoreHeaderLines"].to_i)
            .flat_map { |row| features(columns.to_h { |index, term| [term, row[index]] }.compact) }
      rescue CSV::MalformedCSVError => e
        Reader.refuse("The archive's table breaks off in line #{e.line_number}.")
      end

      def features(row)
        shape = row["footprintWKT"] && Table.geometry(row["footprintWKT"])
        shape ||= Table.point(row.values_at("decimalLongitude", "decimalLatitude"))
        own = more(row["dynamicProperties"])
        row = row.transform_values { |cell| Inert.read(cell) }
        properties = row.except("footprintWKT", "decimalLatitude", "decimalLongitude", "dynamicProperties",
                                "footprintSRS", "geodeticDatum")
        Feature.each_of(shape, name: row["occurrenceID"], properties: properties.merge(own))
      end

      # Properties kept as JSON in one cell; none where it is not.
      def more(text)
        JSON.parse(text.to_s).then { |own| own.is_a?(Hash) ? own : {} }
      rescue JSON::ParserError
        {}
      end

      def mark(text) = { "\\t" => "\t", "\\n" => "\n" }.fetch(text, text)
      def quote(text) = text.to_s.empty? ? "\"" : text

      def meta
        Xml.build do |xml|
          xml.archive(xmlns: TEXT, metadata: "eml.xml") do
            xml.core(encoding: "UTF-8", fieldsTerminatedBy: "\\t", linesTerminatedBy: "\\r\\n", fieldsEnclosedBy: "\"",
                     ignoreHeaderLines: "1",
                     rowType: "#{NAMESPACE}Occurrence") do
              xml.files { xml.location "occurrence.txt" }
              xml.id_(index: 0)
              TERMS.each_with_index { |term, index| xml.field(index:, term: "#{NAMESPACE}#{term}") }
            end
          end
        end
      end

      def eml(title)
        Xml.build do |xml|
          xml["eml"].eml("xmlns:eml": "https://eml.ecoinformatics.org/eml-2.2.0", packageId: title,
                         system: "nimble-thistle") do
            xml.dataset { xml.title title }
          end
        end
      end
      private_class_method :features, :more, :mark, :quote, :meta, :eml
    end
  end
end
