# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      module Routes
        # What a sprayer puts on the ground; and what is in a jar that stands there already.
        module Measuring
          def self.registered(app)
            app.get "/mix/calibration" do
              desk = CalibrationDesk.new(params, units)
              show("mix/calibration", desk:, form: Form::Blank.new) { Answers.calibration(desk) }
            end

            app.post "/mix/calibration" do
              desk = CalibrationDesk.new(params, units)
              form = Forms::Calibration.new(params, units:, today:)
              kept = form.store(desk, today) or next show("mix/calibration", status: 422, desk:, form:)
              go_to "/mix/calibration", "#{kept.said}: kept. The tank offers it."
            end

            %w[drop undo].each do |act|
              app.post "/mix/calibration/:id/#{act}" do
                kept = Store::Calibration.here.first(id: Whole.read(params["id"])) || halt(404)
                act == "drop" ? kept.take_back : kept.bring_back
                offer_undo "/mix/calibration/#{kept.id}/undo" if act == "drop"
                go_to "/mix/calibration", "#{kept.said}: #{act == "drop" ? "taken back" : "back"}."
              end
            end

            app.get "/mix/other-end" do
              desk = OtherEndDesk.new(params, units, Mix::Desk.new(params, nil, units, property, today).product)
              show("mix/other_end", desk:) { Answers.other_end(desk) }
            end
          end
        end
      end
    end
  end
end
