# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      module Routes
        # The records that the law wants of herbicide: what is missing in each, by when; as a table.
        module Records
          def self.registered(app)
            app.get "/mix/records" do
              records = Store::HerbicideRecords.new(property)
              asked = Records.asked(params)
              rows = records.rows(**asked, limit: Store::HerbicideRecords::LISTED)
              show("mix/records", records:, rows:, asked:) { Answers.records(records, rows) }
            end

            app.get "/mix/records.pdf" do
              records = Store::HerbicideRecords.new(property)
              content_type "application/pdf"
              attachment "herbicide-#{property.prefix.downcase}.pdf", :inline
              rows = records.rows(**Records.asked(params), limit: RecordPdf::MOST + 1)
              RecordPdf.new(property, records.rule, rows).render
            end

            app.get "/mix/records/file" do
              asked = Records.asked(params)
              content_type "text/csv", charset: "utf-8"
              attachment ["herbicide", property.prefix.downcase, asked[:year]].compact.join("-").concat(".csv")
              RecordFile.write(Store::HerbicideRecords.new(property).rows(**asked), units)
            end
          end

          # The year and the person in the query.
          def self.asked(params)
            year, person = Whole.read(params["year"].to_s), params["person"].to_s.strip
            { year: (year if year.between?(1900, 2200)), person: (person unless person.empty?) }
          end
        end
      end
    end
  end
end
