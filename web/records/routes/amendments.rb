# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Routes
        # Records corrected, taken back and brought back: with who and why, and what they said before. Kinds are those
        # of Store::Amendment; registered after the other addresses of Records.
        module Amendments
          def self.registered(app)
            app.helpers Helpers

            app.get "/records/:kind/:id" do
              desk = amend_desk
              show("records/amend", desk:) { Answers.amended(desk) }
            end

            app.post "/records/:kind/:id" do
              desk = amend_desk
              halt 404 unless desk.form
              amended(desk, "Corrected. What it said before stays with it.") { desk.correct }
            end

            app.post "/records/:kind/:id/take-back" do
              desk = amend_desk
              amended(desk, "Withdrawn. You can still read the record, but it no longer counts.") { desk.take_back }
            end

            app.post "/records/:kind/:id/bring-back" do
              desk = amend_desk
              amended(desk, "Brought back: it counts again.") { desk.bring_back }
            end
          end

          # What the addresses above share.
          module Helpers
            # The desk of the record that the address names, with its property as the one at hand.
            def amend_desk
              record = Store::Amendment.record(params["kind"], Whole.read(params["id"])) || halt(404)
              @property = record.property
              AmendDesk.new(record, params, units, today)
            end

            def amended(desk, words)
              return go_to(desk.address, words) if yield

              show "records/amend", status: 422, desk:
            rescue Store::Amendable::Outdated
              desk.outdated
              show "records/amend", status: 409, desk:
            end
          end
        end
      end
    end
  end
end
