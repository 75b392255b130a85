# frozen_string_literal: true

module Thistle
  module Web
    module Work
      module Routes
        # Photographs of a patch before and after work.
        module Pictures
          def self.registered(app)
            app.post "/work/pictures" do
              patch, day = patch_at(params["patch"]), Store::WorkDay.live[id: Whole.read(params["day"])]
              halt 404 if day && !day.on?(patch)
              moment = Store::Picture::MOMENTS.key?(params["moment"]) ? params["moment"] : halt(404)
              file = Upload.read(params["file"]) or raise Core::BadInput, "Take or choose a photograph first."
              image = images([file]).first
              Store::Picture.keep(patch, image, moment:, today:, place: params["place"] == "true", work_day: day)
              back = day ? "/work/days/#{day.id}/field/#{patch.id}" : "/survey/patches/#{patch.id}"
              go_to back, "The picture #{moment} is kept."
            end

            # The picture alone, whoever asks.
            app.get "/work/pictures/:id" do
              picture = Store::Picture.live[id: Whole.read(params["id"])] || halt(404)
              content_type picture.media
              kept_for 3600
              picture.bytes
            end

            %w[drop undo].each do |act|
              app.post "/work/pictures/:id/#{act}" do
                picture = Store::Picture[Whole.read(params["id"])] || halt(404)
                act == "drop" ? picture.take_back : picture.bring_back
                offer_undo "/work/pictures/#{picture.id}/undo" if act == "drop"
                go_to "/survey/patches/#{picture.patch_id}", "The picture is #{act == "drop" ? "taken back" : "back"}."
              end
            end
          end
        end
      end
    end
  end
end
