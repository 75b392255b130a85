# frozen_string_literal: true

module Thistle
  module Web
    module Today
      # Home: what is due, what this day is good for, what waits and why, over all properties.
      module Routes
        def self.registered(app)
          app.get "/" do
            board = Board.new(properties, today)
            show("today/index", board:) { Answers.today(board) }
          end

          app.get "/find" do
            found = Finder.new(params["q"].to_s)
            show("today/find", found:) { Answers.found(found) }
          end

          app.get "/glossary/terms" do
            halt 404 unless @json
            public_for 3600
            json(Glossary.terms)
          end

          app.get "/glossary" do
            show("today/glossary", parts: Glossary.parts) { Answers.glossary(Glossary.parts) }
          end
        end
      end
    end
  end
end
