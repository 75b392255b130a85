# frozen_string_literal: true

module Thistle
  module Web
    module Work
      module Routes
        # The group's tools.
        module Kit
          def self.registered(app)
            app.get "/work/kit" do
              show("work/kit", items: kit_items, form: Forms::KitItem.untouched(units:, today:)) do
                kit_items.map { |one| Answers.kit_item(one, today) }
              end
            end

            app.post "/work/kit" do
              form = Forms::KitItem.new(params, units:, today:)
              item = form.store or next show("work/kit", status: 422, items: kit_items, form:)
              go_to "/work/kit", "#{item.name}: kept."
            end

            app.get "/work/kit/:id" do
              show "work/kit_item", item: kit_at, form: Forms::KitItem.of(kit_at, units, today)
            end

            app.put "/work/kit/:id" do
              form = Forms::KitItem.new(params, units:, today:)
              next go_to("/work/kit", "#{kit_at.name}: kept.") if form.store(kit_at)

              show "work/kit_item", status: 422, item: kit_at, form:
            end

            app.post "/work/kit/:id/tested" do
              kit_at.update(tested_on: today)
              go_to "/work/kit", "#{kit_at.name}: tested today."
            end

            app.delete "/work/kit/:id" do
              offer_undo "/work/kit/#{kit_at.tap(&:take_off).id}/undo"
              go_to "/work/kit", "#{kit_at.name} was taken off the list."
            end

            app.post("/work/kit/:id/undo") { go_to "/work/kit", "#{kit_at.tap(&:bring_back).name} is back." }
          end
        end
      end
    end
  end
end
