# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      module Routes
        # Files in and out.
        module Exchange
          def self.registered(app)
            leaving(app)
            coming(app)
            rows(app)
            taking(app)
          end

          def self.leaving(app)
            app.get "/survey/files" do
              show "survey/files", form: Form::Blank.new
            end

            app.get "/survey/export/:kind" do
              halt 404 unless Export.kinds(property).key?(params["kind"])
              export = Export.new(property, params["kind"]).ready
              content_type export.media
              attachment export.filename
              export
            end
          end

          def self.coming(app)
            app.post "/survey/arrivals" do
              file = Upload.read(params["file"])
              raise Core::BadInput.new("Choose a file first.", field: :file) unless file

              bytes = file[:tempfile].read(Formats::Reader::MAX_BYTES + 1)
              features, format = Core::Apart.call { [Formats::Reader.read(bytes), Formats::Reader.name(bytes)] }
              arrival = Store::Arrival.draft(property, File.basename(file[:filename].to_s.scrub)[0, 120], features,
                                             format:)
              arrival.look(seen_on: today)
              go_to "/survey/arrivals/#{arrival.id}"
            rescue Core::BadInput => e
              show "survey/files", status: 422, form: Form::Blank.new.failed(:file, e.message)
            end

            app.get "/survey/arrivals/:id" do
              arrival = arrival_at(params["id"])
              show("survey/arrival", arrival:, desk: ArrivalDesk.new(arrival, params)) { Answers.arrival(arrival) }
            end

            app.put "/survey/arrivals/:id" do
              arrival = arrival_at(params["id"])
              halt 409 unless arrival.draft?
              ArrivalDesk.new(arrival, params).map
              arrival.look(seen_on: today)
              go_to "/survey/arrivals/#{arrival.id}"
            end
          end

          # Rows put right before the file is taken, and those that do not come in as a file of their own.
          def self.rows(app)
            app.get "/survey/arrivals/:id/rows/:row" do
              desk = RowDesk.new(row_of(arrival_at(params["id"])), params)
              show("survey/arrival_row", desk:) { Answers.arrival_row(desk) }
            end

            app.put "/survey/arrivals/:id/rows/:row" do
              arrival = arrival_at(params["id"])
              desk = RowDesk.new(row_of(arrival), params)
              next show("survey/arrival_row", status: 422, desk:) unless desk.keep

              look_again arrival, "Row #{desk.row.row} is put right."
            end

            app.post "/survey/arrivals/:id/rows/:row/as-read" do
              arrival = arrival_at(params["id"])
              row = row_of(arrival).tap(&:as_read)
              look_again arrival, "Row #{row.row} is as the file says."
            end

            app.get "/survey/arrivals/:id/left" do
              arrival = arrival_at(params["id"])
              content_type "text/csv", charset: "utf-8"
              attachment "left-of-#{File.basename(arrival.filename, ".*")}.csv"
              Formats::CsvFile.write(*ArrivalDesk.new(arrival, params).left)
            end
          end

          def self.taking(app)
            app.post "/survey/arrivals/:id/take" do
              arrival = arrival_at(params["id"])
              taken = arrival.take(seen_on: today)
              next refuse(409, "#{arrival.filename} is being taken already, or was.") unless taken

              go_to "/survey/arrivals/#{arrival.id}"
            end

            # What the bar asks for while rows are going in.
            app.get "/survey/arrivals/:id/progress" do
              arrival = arrival_at(params["id"])
              headers "HX-Refresh" => "true" unless arrival.busy?
              part "survey/_progress", arrival:, done: arrival.done_rows
            end

            app.post "/survey/arrivals/:id/undo" do
              arrival = arrival_at(params["id"])
              arrival.undo
              go_to "/survey/arrivals/#{arrival.id}", "#{arrival.filename} was taken back: all of it."
            end

            app.delete "/survey/arrivals/:id" do
              arrival = arrival_at(params["id"])
              halt 409 unless arrival.takeable?
              arrival.delete
              go_to "/survey/files", "#{arrival.filename} was put aside; nothing of it is on the map."
            end
          end
        end
      end
    end
  end
end
