# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Routes
        # A property begins, moves, is put away and brought back.
        module Properties
          BEGUN = "has begun. Now map the first patch: draw a point, a line or an area."

          def self.registered(app)
            begun(app)
            kept(app)
          end

          def self.begun(app)
            app.get "/records/properties/new" do
              show "records/property", form: Forms::Property.untouched({}, units:, today:)
            end

            # What usually goes with the place that is drawn or typed so far.
            app.get "/records/properties/place" do
              part "records/_place", form: Forms::Property.untouched(params, units:, today:)
            end

            app.post "/records/properties" do
              shapes = Properties.shapes(params["file"])
              form = Forms::Property.new(params, units:, today:, shapes:)
              made = form.store or next show("records/property", status: 422, form:)
              session[:property] = made.id
              Store::Membership.give(who.account, made, "steward") if who.account
              go_to "/survey#patch-form", "#{made.name} #{BEGUN}"
            rescue Core::BadInput => e
              form = Forms::Property.untouched(params, units:, today:).failed(:file, e.message)
              show "records/property", status: 422, form:
            end
          end

          def self.kept(app)
            app.post "/records/place" do
              form = Forms::Place.new(params, units:, today:, property:)
              next go_to("/records#place", "#{property.name} is where you said.") if form.store

              show "records/index", status: 422, timeline: Timeline.new(property), form: Routes.form(property, today),
                                    place: form, jobs: Store::Job.under_way, keeping: Store::Keeping.said
            end

            app.post "/records/properties/:id/put-away" do
              away = Store::Property[Whole.read(params["id"])] || halt(404)
              away.put_away
              session.delete(:property)
              offer_undo "/records/properties/#{away.id}/bring-back"
              go_to "/", "#{away.name} is put away. Its records stay."
            end

            app.post "/records/properties/:id/bring-back" do
              back = Store::Property[Whole.read(params["id"])] || halt(404)
              back.bring_back
              session[:property] = back.id
              go_to "/", "#{back.name} is back."
            end
          end

          # What a boundary's file holds; none for no file. Raises Core::BadInput (field :file).
          def self.shapes(file)
            file = Upload.read(file) or return []
            bytes = file[:tempfile].read(Formats::Reader::MAX_BYTES + 1)
            features = Core::Apart.call { Formats::Reader.read(bytes) }
            features.filter_map { |one| one.geometry && Core::Survey::Shape.new(one.geometry) }
          rescue Core::BadInput => e
            raise Core::BadInput.new(e.message, field: :file)
          end
        end
      end
    end
  end
end
