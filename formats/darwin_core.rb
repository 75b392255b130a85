# frozen_string_literal: true

require "csv"

module Thistle
  module Formats
    # Darwin Core (TDWG) occurrence records as CSV (RFC 4180): one row a report.
    module DarwinCore
      TERMS = %w[occurrenceID basisOfRecord eventDate scientificName family vernacularName identificationVerificationStatus identifiedBy
                 dateIdentified identificationRemarks recordedBy decimalLatitude decimalLongitude geodeticDatum occurrenceRemarks
                 occurrenceStatus].freeze

      module_function

      # rows: hashes by term; a term that a row does not know stays empty.
      def write(rows)
        CSV.generate(row_sep: "\r\n") do |csv|
          csv << TERMS
          rows.each { |row| csv << TERMS.map { |term| row[term] } }
        end
      end
    end
  end
end
