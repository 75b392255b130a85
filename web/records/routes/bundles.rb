# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Routes
        # A whole property as one file: handed on, brought, looked over, taken in.
        module Bundles
          def self.registered(app)
            out(app)
            brought(app)
          end

          def self.out(app)
            app.get "/records/bundles" do
              show("records/bundles", error: nil) do
                { open: Store::BundleArrival.open.map { |one| one.values.slice(:id, :filename) } }
              end
            end

            app.get "/records/bundle" do
              Dir.mktmpdir("thistle") do |folder|
                path = File.join(folder, "bundle.zip")
                Store::Bundle::Writer.new([property], whole: params["whole"] == "1").write(path, made_on: today.iso8601)
                content_type "application/zip"
                attachment "#{property.name.downcase.gsub(/[^a-z0-9]+/, "-")}-#{today.iso8601}.zip"
                File.new(path, "rb") # it has no name any more once it is sent
              end
            end
          end

          def self.brought(app)
            app.post "/records/bundles" do
              file = Upload.read(params["file"]) or raise Core::BadInput.new("Choose a file first.", field: :file)
              name = File.basename(file[:filename].to_s.scrub)[0, 120]
              go_to "/records/bundles/#{Store::BundleArrival.bring(name, file[:tempfile].path).id}"
            rescue Core::BadInput => e
              show "records/bundles", status: 422, error: e.message
            end

            app.get "/records/bundles/:id" do
              arrival = bundle_at(params["id"])
              board = BundleBoard.new(arrival) if arrival.open?
              show("records/bundle", arrival:, board:) { Answers.bundle(arrival, board) }
            end

            app.post "/records/bundles/:id/take" do
              arrival = bundle_at(params["id"])
              halt 409 unless arrival.open?
              chosen = params["take"].is_a?(Hash) ? params["take"].select { |_, which| which == "theirs" } : {}
              arrival.take(chosen)
              go_to "/records/bundles/#{arrival.id}", "#{arrival.filename} is taken in."
            end

            app.post "/records/bundles/:id/aside" do
              arrival = bundle_at(params["id"]).tap(&:put_aside)
              go_to "/records/bundles", "#{arrival.filename} is put aside; nothing of it came in."
            end
          end
        end
      end
    end
  end
end
