# frozen_string_literal: true

module Thistle
  module Web
    module Accounts
      module Routes
        # What a landowner lets people do on their ground.
        module Permissions
          def self.registered(app)
            app.get "/permission" do
              form = Forms::Permission.untouched({ "from_on" => today.iso8601, "until_on" => (today + 365).iso8601,
                                                   "person" => signature.to_s }, units:, today:)
              show("accounts/permission", form:) { { permissions: permissions.map { |one| Answers.permission(one) } } }
            end

            app.post "/permission" do
              form = Forms::Permission.new(params, units:, today:)
              next show("accounts/permission", status: 422, form:) unless form.store(property, who.account)

              go_to "/permission", "The permission is on record."
            end

            { "drop" => :take_back, "undo" => :bring_back }.each do |path, act|
              app.post "/permission/:id/#{path}" do
                one = of_property(Store::Permission, params["id"])
                one.public_send(act)
                offer_undo "/permission/#{one.id}/undo" if path == "drop"
                go_to "/permission", path == "drop" ? "The permission is taken back." : "The permission stands again."
              end
            end
          end
        end
      end
    end
  end
end
