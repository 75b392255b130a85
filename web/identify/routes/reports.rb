# frozen_string_literal: true

module Thistle
  module Web
    module Identify
      module Routes
        # A plant that could not be settled, for a specialist: the sheet, its photographs, the answer.
        module Reports
          def self.registered(app)
            sheets(app)
            photographs(app)
            answers(app)
          end

          def self.sheets(app)
            app.get "/identify/reports" do
              turns = Turns.new(
                Store::Report.where(property_id: properties.map(&:id)).reverse(:seen_on, :id).eager(:photos, :patch,
                                                                                                    :property), params
              )
              show "identify/reports", turns: do
                go_on("page" => turns.after) if turns.after
                { reports: turns.rows.map { |report| Answers.report(report) } }
              end
            end

            app.post "/identify/reports" do
              patch = patch_in_query
              key = Desk.new(params, property, today).key
              raise Core::BadInput.new("Choose at least one thing that you saw.", field: :c) if key.observed.empty?

              go_to "/identify/reports/#{Store::Report.write(property, key, patch:).id}",
                    "The sheet is ready. Add photographs, then print or send it."
            end

            app.get "/identify/reports/:id" do
              report = report_at(params["id"])
              show("identify/report", report:, form: Forms::Answer.untouched(units:, today:)) { Answers.report(report) }
            end

            app.get "/identify/reports/:id/occurrence.csv" do
              report = report_at(params["id"])
              content_type "text/csv", charset: "utf-8"
              attachment "report-#{report.id}.csv"
              Formats::DarwinCore.write([Answers.occurrence(report)])
            end
          end

          def self.photographs(app)
            app.post "/identify/reports/:id/photos" do
              report = report_at(params["id"])
              files = Upload.all(params["photos"])
              raise Core::BadInput.new("Choose a photograph first.", field: :photos) if files.empty?

              images(files).each { |image| report.attach(image, place: params["place"] == "true") }
              go_to "/identify/reports/#{report.id}", "#{count(files.size, "photograph")} added."
            rescue Core::BadInput => e
              show "identify/report", status: 422, report:,
                                      form: Forms::Answer.untouched(units:, today:).failed(:photos, e.message)
            end

            # The picture and nothing else: where it was taken stands in the records.
            app.get "/identify/photos/:id" do
              photo = Store::Photo[Whole.read(params["id"])] || halt(404)
              content_type photo.media
              kept_for 3600
              photo.bytes
            end
          end

          def self.answers(app)
            app.post "/identify/reports/:id/answer" do
              report = report_at(params["id"])
              form = Forms::Answer.new(params, units:, today:, seen_on: report.seen_on)
              if form.store(report)
                next go_to("/identify/reports/#{report.id}",
                           "Kept: #{report.answer.name}, named by #{report.answered_by}.")
              end

              show "identify/report", status: 422, report:, form:
            end
          end
        end
      end
    end
  end
end
