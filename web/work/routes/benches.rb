# frozen_string_literal: true

module Thistle
  module Web
    module Work
      module Routes
        # What is hauled and what is laid; a day in the water; boots and tools that were cleaned.
        module Benches
          def self.registered(app)
            app.get "/work/haul" do
              patch = patch_in_query
              desk = HaulDesk.new(params, units, patch, today)
              show("work/haul", desk:, patch:) { Answers.haul(desk) }
            end

            app.get "/work/water" do
              desk = WaterDesk.new(params, units, site, today)
              show("work/water", desk:) { Answers.water(desk) }
            end

            app.post "/work/cleanings" do
              cleaned = properties.find { |p| p.id == Whole.read(params["property"]) } || halt(404)
              way = %w[in out].include?(params["way"]) ? params["way"] : nil
              what = Store::Cleaning::WHAT.keys.select { |key| params[key] == "true" }
              Store::Cleaning.create(property_id: cleaned.id, done_on: today, people: params["people"].to_s[0, 400],
                                     way:, what: JSON.generate(what))
              back = Store::WorkDay.live[id: Whole.read(params["day"]), property_id: cleaned.id]
              said = "#{cleaned.name}: cleaned today#{", on the way #{way}" if way}. " \
                     "Asked again in a week, while there is seed."
              go_to back ? "/work/days/#{back.id}" : "/", said
            end
          end
        end
      end
    end
  end
end
