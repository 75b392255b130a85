# frozen_string_literal: true

module Thistle
  module Web
    module Identify
      module Routes
        # The trainer: specimens to name, moves to judge, and which pair to study.
        module Practice
          def self.registered(app)
            app.get "/identify/practice" do
              session.delete(:card) if params["next"]
              # an answer is sent, not asked for
              desk = PracticeDesk.of(session, params.except("answer"), property, today)
              session[:card] = desk.held
              show("identify/practice", desk:) { Answers.practice(desk) }
            end

            app.post "/identify/practice" do
              desk = PracticeDesk.of(session, params, property, today)
              desk.keep
              session.delete(:card)
              show "identify/practice", desk:
            end

            app.post "/identify/practice/person" do
              session[:person] = params["person"].to_s.strip.scrub[0, 60]
              go_to "/identify/practice?next=1"
            end
          end
        end
      end
    end
  end
end
