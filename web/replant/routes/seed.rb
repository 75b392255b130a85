# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      module Routes
        # Seed on the shelf: lots by their tags, bought or gathered. They belong to the group.
        module Seed
          def self.registered(app)
            app.get "/replant/seed" do
              show("replant/seed", lot: nil, form: Forms::Lot.untouched({ "cleaned" => "true" }, units:, today:)) do
                Store::SeedOnHand.live.here.order(:id).map { |lot| Answers.lot(lot, today) }
              end
            end

            app.post "/replant/seed" do
              form = Forms::Lot.new(params, units:, today:)
              next show("replant/seed", status: 422, lot: nil, form:) unless form.ok?

              lot = Store::SeedOnHand.create(**form.columns, created_at: Time.now)
              go_to "/replant/seed", "#{lot.native.name}, #{lot.name}, is on the shelf."
            end

            app.get "/replant/seed/:id" do
              lot = lot_in_path
              show("replant/seed", lot:, form: Forms::Lot.of(lot, units, today)) { Answers.lot(lot, today) }
            end

            app.put "/replant/seed/:id" do
              lot = lot_in_path
              form = Forms::Lot.new(params, units:, today:)
              next show("replant/seed", status: 422, lot:, form:) unless form.ok?

              lot.update(**form.columns)
              go_to "/replant/seed", "#{lot.name} changed."
            end

            app.delete "/replant/seed/:id" do
              lot = lot_in_path.tap { |one| one.update(deleted_at: Time.now) }
              offer_undo "/replant/seed/#{lot.id}/undo"
              go_to "/replant/seed", "#{lot.name} is off the shelf."
            end

            app.post "/replant/seed/:id/undo" do
              lot = lot_in_path.tap { |one| one.update(deleted_at: nil) }
              go_to "/replant/seed", "#{lot.name} is back on the shelf."
            end
          end
        end
      end
    end
  end
end
