# frozen_string_literal: true

module Thistle
  module Web
    module Work
      module Routes
        # The group's own list of people.
        module People
          def self.registered(app)
            app.helpers Helpers
            listed(app)
            kept(app)
          end

          # Who reads what of somebody.
          module Helpers
            # Licence number, whom to call and notes: the steward's, and one's own.
            def opens_to?(person) = may?(:change, :people) || who.account&.person_id == person.id
          end

          def self.listed(app)
            app.get "/work/people" do
              board = PeopleBoard.new(today)
              show("work/people", board:) { board.rows.map { |row| Answers.person(row) } }
            end

            app.get "/work/people/new" do
              form = Forms::Person.untouched({ "name" => params["name"].to_s[0, 80] }, units:, today:)
              show "work/person", person: nil, form:
            end

            app.get "/work/people/:id" do
              person = person_at(params["id"])
              unless may?(:change, :people)
                next show("work/person_card", person:) do
                  Answers.person_card(person, open: opens_to?(person))
                end
              end

              show "work/person", person:, form: Forms::Person.of(person, units, today).tap { |form| form.errors.clear }
            end
          end

          def self.kept(app)
            app.post "/work/people" do
              form = Forms::Person.new(params, units:, today:)
              person = form.store or next show("work/person", status: 422, person: nil, form:)
              go_to "/work/people", "#{person.name} is on the list."
            end

            app.put "/work/people/:id" do
              person = person_at(params["id"])
              form = Forms::Person.new(params, units:, today:)
              next go_to("/work/people", "#{person.name}: kept.") if form.store(person)

              show "work/person", status: 422, person: person_at(params["id"]), form:
            end

            app.delete "/work/people/:id" do
              person = person_at(params["id"]).tap(&:take_off)
              offer_undo "/work/people/#{person.id}/undo"
              go_to "/work/people", "#{person.name} was taken off the list. Records keep the name."
            end

            app.post "/work/people/:id/undo" do
              person = person_at(params["id"]).tap(&:bring_back)
              go_to "/work/people", "#{person.name} is back on the list."
            end

            app.post "/work/people/names" do
              person, name = person_at(params["person"]), params["name"].to_s.strip[0, 80]
              halt 404 if name.empty?
              person.match(name)
              go_to "/work/people", "“#{name}” in older records is #{person.name}."
            end
          end
        end
      end
    end
  end
end
