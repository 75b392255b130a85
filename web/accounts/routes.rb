# frozen_string_literal: true

module Thistle
  module Web
    module Accounts
      # Who may see, do and undo what: one's own account, members of a property, guests, the trail, letters.
      module Routes
        def self.registered(app)
          app.helpers Helpers
          app.register Mine, Membership, Together, Permissions
        end

        # What its routes share.
        module Helpers
          def membership_in_path = Store::Membership.live.first(id: Whole.read(params["id"])) || halt(404)
          def account_in_path = Store::Account.there.first(id: Whole.read(params["id"])) || halt(404)

          # What is new for them on what they see.
          def news_for(account) = Store::News.new(account, properties.map(&:id), staff: staff?)

          # The demo's people cannot go: whoever looks next would find nobody there.
          def stay_in_demo
            raise Core::BadInput.new("This is the demo: its people stay.", field: :base) if demo?
          end

          # The address of this copy as whoever asks reached it.
          def here = request.base_url

          # A letter that lets somebody choose a password, and where it can be read meanwhile.
          def invite(account)
            link = URI.join(here, URI(Door.password_link(account, days: Forms::Member::DAYS)).request_uri).to_s
            places = Store::Property.where(id: account.memberships.map(&:property_id)).order(:id).select_map(:name)
            Post.send(to: account.email, subject: "Your account for #{places.first}",
                      body: Letters.invitation(account.name, signature || "Somebody", places.join(", "), link,
                                               Forms::Member::DAYS))
          end
        end
      end
    end
  end
end
