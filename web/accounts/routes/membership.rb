# frozen_string_literal: true

require "csv"

module Thistle
  module Web
    module Accounts
      module Routes
        # Who may do what on the property at hand; guests; who did what; letters.
        module Membership
          def self.registered(app)
            members(app)
            whole(app)
            guests(app)
            told(app)
          end

          def self.members(app)
            app.get "/members" do
              show_members { Answers.members(Store::Members.new(property)) }
            end

            app.post "/members" do
              form = Forms::Member.new(params, units:, today:)
              account = form.store(property) or next show_members(form:, status: 422)
              invite(account) if form.new?
              said = form.new? ? "#{account.name} is invited: the letter lies with the keeper." : "#{account.name} may."
              go_to "/members", said
            end

            app.post "/members/:id/again" do
              invite(membership_in_path.account)
              go_to "/members", "Another letter was written."
            end

            app.post "/members/:id/person" do
              account = membership_in_path.account
              person = params["person"].to_s.empty? ? nil : person_at(params["person"])
              account.is(person)
              said = person ? "#{account.name} is #{person.name} on the list of people." : "#{account.name} is nobody."
              go_to "/members", said
            end

            app.post "/members/:id/end" do
              held = membership_in_path
              held.take_away
              go_to "/members",
                    "#{held.account.name} is no longer #{knowledge.policy.roles.dig(held.role, "text")} here."
            end
          end

          def self.whole(app)
            app.post "/accounts/:id/close" do
              stay_in_demo
              account = account_in_path
              Store::Leaving.new(account, name: "name").call
              go_to "/members", "The account of #{account.name} is closed."
            end

            app.post "/members/group" do
              form = Forms::Group.new(params, units:, today:)
              group = form.store(property) or next show_members(group: form, status: 422)
              go_to "/members#group", "#{property.name} belongs to #{group.name} now. Its records keep whom and what " \
                                      "they name."
            end

            app.post "/accounts/:id/keeper" do
              account = account_in_path.tap { |one| one.update(keeper: true) }
              go_to "/members", "#{account.name} answers for this copy too."
            end
          end

          def self.guests(app)
            app.post "/guests" do
              form = Forms::Guest.new(params, units:, today:)
              made, key = form.store(property)
              next show_members(guest: form, status: 422) unless made

              path = made.kind == "calendar" ? "/calendars/#{key}.ics" : "/shared/#{key}"
              show_members(link: "#{here}#{path}")
            end

            app.post "/guests/:id/end" do
              link = Store::GuestLink.live.first(id: Whole.read(params["id"])) || halt(404)
              link.finish
              go_to "/members", "The link opens nothing any more."
            end

            # The key is taken out of the address, and one thing is shown.
            app.get "/shared/:key" do
              link = Store::GuestLink.by_key(params["key"], Store::Setting.today) || halt(404)
              halt 404 unless (path = Guests::PATHS[link.kind])
              session[Gate::GUEST] = link.id
              redirect to(format(path, link.record_id)), 303
            end
          end

          def self.told(app)
            app.get "/trail" do
              desk = TrailDesk.new(property, params, keeper: who.keeper?)
              show("accounts/trail", desk:) { Answers.trail(desk) }
            end

            app.get "/trail/file" do
              desk = TrailDesk.new(property, params, keeper: who.keeper?)
              content_type "text/csv", charset: "utf-8"
              attachment "trail-#{today.iso8601}.csv"
              Formats::CsvFile.write(TrailDesk::HEADINGS, desk.each_row)
            end

            app.get "/outbox" do
              letters = Store::Letter.newest.limit(100).all
              show("accounts/outbox", letters:) { { letters: letters.map { |one| one.values.except(:body) } } }
            end
          end
          private_class_method :members, :whole, :guests, :told

          # What a guest's link leads to.
          module Guests
            PATHS = { "sheet" => "/identify/reports/%d", "plan" => "/records/reports/plans/%d" }.freeze
          end
        end

        # The page of members, for whatever sends a form of it back; what a guest's key shows.
        module Helpers
          # The property whose calendar a guest's key shows; nil for none.
          def guests_calendar(key)
            link = Store::GuestLink.by_key(key, Store::Setting.today)
            link.property if link&.kind == "calendar"
          end

          def show_members(status: 200, form: nil, guest: nil, group: nil, link: nil, &data)
            form ||= Forms::Member.untouched({ "role" => "volunteer" }, units:, today:)
            guest ||= Forms::Guest.untouched({ "shown" => "calendar", "until_on" => (today + 90).iso8601 }, units:,
today:)
            group ||= Forms::Group.untouched({ "name" => property.group.name }, units:, today:)
            members = Store::Members.new(property)
            show("accounts/members", status:, members:, form:, guest:, group:, link:, &data)
          end
        end
      end
    end
  end
end
