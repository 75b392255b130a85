# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      module Routes
        # The card for the truck, as a page and as PDF: the bench's own address, answered for carrying.
        module Cards
          def self.registered(app)
            app.get "/mix/card" do
              desk = Desk.new(params, patch_in_query, units, property, today)
              redirect to("/mix?#{request.query_string}"), 303 unless desk.answer
              show "mix/card", card: Card.new(desk, units, today)
            end

            app.get "/mix/card.pdf" do
              desk = Desk.new(params, patch_in_query, units, property, today)
              halt 404 unless desk.answer
              content_type "application/pdf"
              attachment "mix-card.pdf", :inline
              CardPdf.new(Card.new(desk, units, today), plot("vessel", answer: desk.answer, vessel: desk.vessel),
                          property.habits.paper).render
            end
          end
        end
      end
    end
  end
end
