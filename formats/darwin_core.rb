# frozen_string_literal: true

require "csv"
require "json"

module Thistle
  module Formats
    # Darwin Core (TDWG): occurrence records as CSV (RFC 4180); an archive of events with what was there at each and
    # what was measured (a zip of meta.xml, eml.xml and a table of each, after the Darwin Core text guide). Reads
    # archives with occurrences or events at their core.
    module DarwinCore
      TERMS = %w[occurrenceID basisOfRecord eventDate scientificName family vernacularName
                 identificationVerificationStatus identifiedBy dateIdentified identificationRemarks recordedBy
                 decimalLatitude decimalLongitude geodeticDatum footprintWKT footprintSRS samplingProtocol
                 samplingEffort organismQuantity organismQuantityType dynamicProperties occurrenceRemarks
                 occurrenceStatus].freeze
      EVENT = %w[eventID parentEventID eventType eventDate locality decimalLatitude decimalLongitude geodeticDatum
                 footprintWKT footprintSRS samplingProtocol samplingEffort sampleSizeValue sampleSizeUnit recordedBy
                 eventRemarks].freeze
      OCCURRENCE = ["eventID", "organismID", *TERMS - %w[decimalLatitude decimalLongitude geodeticDatum footprintWKT
                                                         footprintSRS samplingProtocol samplingEffort]].freeze
      MEASUREMENT = %w[eventID measurementID measurementType measurementValue measurementUnit measurementDeterminedDate
                       measurementRemarks].freeze
      # The tables of an archive: what each row is, and its terms.
      TABLES = { "event.txt" => ["Event", EVENT], "occurrence.txt" => ["Occurrence", OCCURRENCE],
                 "measurementorfact.txt" => ["MeasurementOrFact", MEASUREMENT] }.freeze
      NAMESPACE = "http://rs.tdwg.org/dwc/terms/"
      TEXT = "http://rs.tdwg.org/dwc/text/"

      module_function

      # rows: hashes by term; a term that a row does not know stays empty. Answers `out`.
      def write(rows, out = +"", col_sep: ",")
        CsvFile.write(TERMS, rows.lazy.map { |row| row.values_at(*TERMS) }, out, col_sep:)
      end

      # A zip file at a path: events, and by their ids what was there and what was measured; rows as hashes by term.
      def archive(path, title:, events:, occurrences:, measurements:)
        tables = TABLES.keys.zip([events, occurrences, measurements]).to_h do |name, rows|
          [name, ->(out) { table(rows, out, TABLES.fetch(name).last) }]
        end
        Archive.pack(path, "meta.xml" => meta, "eml.xml" => eml(title), **tables)
      end

      def table(rows, out, terms)
        CsvFile.write(terms, rows.lazy.map { |row| row.values_at(*terms) }, out, col_sep: "\t")
      end

      # [Feature] from the unpacked files of an archive: {name => bytes}. Of an archive of events, what was there at
      # each, once for each organism, with the event's place and day.
      def read(files)
        told = Xml.parse(files.fetch("meta.xml"), "meta.xml")
        core = told.at_xpath("//core") or Reader.refuse("The archive's meta.xml names no core table.")
        found = of?(core, "Event") ? at_events(told, core, files) : rows(core, files)
        found.flat_map { |row| features(row) }
      end

      def of?(table, kind) = table["rowType"].to_s.end_with?("/#{kind}")

      # What was there at events, with the event's own facts.
      def at_events(told, core, files)
        beside = told.xpath("//extension").find { |table| of?(table, "Occurrence") } or
          Reader.refuse("The archive tells of events, and not of what was there.")
        event = ->(row) { row["id"] || row["eventID"] }
        events = rows(core, files).to_h { |row| [event[row], row] }
        rows(beside, files).map { |row| events.fetch(event[row], {}).merge(row) }
                           .uniq { |row| row["organismID"] || row["occurrenceID"] || row }
      end

      # [{term => text}] of a table that meta.xml describes; its id column as "id".
      def rows(table, files)
        name = Xml.text(table, "files/location")
        bytes = files[name] or Reader.refuse("The archive names #{name.inspect[0, 60]} as its table, " \
                                             "but does not hold it.")
        Reader.check_pieces(bytes, "\n\t,")
        columns = table.xpath("id | coreid | field[@index]").to_h do |field|
          [field["index"].to_i, field["term"]&.split("/")&.last || "id"]
        end
        found = CSV.parse(Text.utf8(bytes), col_sep: mark(table["fieldsTerminatedBy"] || "\t"),
                                            quote_char: quote(table["fieldsEnclosedBy"]), liberal_parsing: true)
        found.drop(table["ignoreHeaderLines"].to_i)
             .map { |row| columns.to_h { |index, term| [term, row[index]] }.compact }
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
        how = { encoding: "UTF-8", fieldsTerminatedBy: "\\t", linesTerminatedBy: "\\r\\n", fieldsEnclosedBy: "\"",
                ignoreHeaderLines: "1" }
        Xml.build do |xml|
          xml.archive(xmlns: TEXT, metadata: "eml.xml") do
            TABLES.each_with_index do |(name, (kind, terms)), n|
              xml.public_send(n.zero? ? :core : :extension, **how, rowType: "#{NAMESPACE}#{kind}") do
                xml.files { xml.location name }
                n.zero? ? xml.id_(index: 0) : xml.coreid(index: 0)
                terms.each_with_index { |term, index| xml.field(index:, term: "#{NAMESPACE}#{term}") }
              end
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
      private_class_method :table, :of?, :at_events, :rows, :features, :more, :mark, :quote, :meta, :eml
    end
  end
end
