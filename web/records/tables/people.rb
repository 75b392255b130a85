# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Tables
        # The group's people, of all properties.
        class People < Table
          include GroupList

          NAME = Sequel.function(:lower, :name)

          def self.title = "People"
          def self.start = ["/work/people/new", "Add someone"]
          def dataset = Store::Person.live.here
          def address(person) = "/work/people/#{person.id}"
          def filters = [words("q", "Name"), filter("role", "Role", roles)]
          def acts = [act("off", "Take off the list")]

          def columns
            @columns ||= [
              plain("Name", :name, by: NAME),
              column("roles", "Roles") { |one| board.words("roles", one.roles_kept).join(", ") },
              column("training", "Training") { |one| board.words("training", one.training_kept).join(", ") },
              dated("Licensed until", :licence_expires_on),
              column("hours", "Hours this year", number: true, raw: ->(one) { board.row(one).hours }) do |one|
                Words.hours(board.row(one).hours)
              end,
              column("days", "Days", number: true) { |one| board.row(one).days.to_s }
            ]
          end

          private

          def board = @board ||= Work::PeopleBoard.new(@today)
          def roles = Core::Knowledge.shipped.crew["roles"].transform_values { |one| one["text"] }

          def narrowed(found, key, value)
            return found.where(Sequel.ilike(:name, "%#{found.escape_like(value)}%")) if key == "q"

            found.where(Sequel.lit("EXISTS (SELECT 1 FROM json_each(roles) j WHERE j.value = ?)", value))
          end
        end
      end
    end
  end
end
