# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      module Routes
        # Spacing against weeding; gathering seed of our own.
        module Benches
          def self.registered(app)
            app.get "/replant/spacing" do
              form = Forms::Spacing.asked(params, property.rates.hour, units:, today:)
              show("replant/spacing", form:) { Answers.spacing(form) }
            end

            app.get "/replant/gather" do
              board = GatherBoard.new(params, property, units, today, on: day_in_query("on"))
              place = Forms::Place.untouched(units:, today:)
              show("replant/gather", board:, place:) { Answers.gather(board) }
            end

            app.post "/replant/gather/places" do
              place = Forms::Place.new(params, units:, today:)
              kept = place.store(property)
              board = GatherBoard.new({}, property, units, today)
              next show("replant/gather", status: 422, board:, place:) { { errors: place.errors } } unless kept

              go_to "/replant/gather", "Kept: #{kept.native.name}."
            end

            app.post "/replant/gather/places/:id/drop" do
              place = of_property(Store::GatherPlace, params["id"]).tap { |one| one.update(deleted_at: Time.now) }
              offer_undo "/replant/gather/places/#{place.id}/undo"
              go_to "/replant/gather", "The place of #{place.native.name} is taken off."
            end

            app.post "/replant/gather/places/:id/undo" do
              place = of_property(Store::GatherPlace, params["id"]).tap { |one| one.update(deleted_at: nil) }
              go_to "/replant/gather", "The place of #{place.native.name} is back."
            end
          end
        end
      end
    end
  end
end
