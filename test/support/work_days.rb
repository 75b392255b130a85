# frozen_string_literal: true

module Thistle
  # What tests of people, work days and the field share.
  module WorkDays
    LEAD = { name: "B. Sands", "roles[]": %w[crew_lead applicator], licence_number: "A-77",
             licence_category: "natural areas", licence_expires_on: "2027-03-01", emergency: "sister, 555-0100" }.freeze
    DAY = { held_on: "2026-05-16", starts_at: "09:00", ends_at: "14:00", hands: "6", meet: "Gravel lot",
            help: "Clinic, 12 minutes" }.freeze

    def person(name) = Store::Person.first(name:)
    def day = Store::WorkDay.last
    def answer = day.answered
    def herbicide = answer[:turns].select { |turn| Core::Knowledge.shipped.removal(turn[:method]).herbicide? }

    def add(name, *roles, **more)
      send_form(:post, "/work/people", name:, "roles[]": roles, **more)
      person(name)
    end

    def propose(**more) = send_form(:post, "/work/days", **DAY, **more)

    def tap(patch, kind, key: SecureRandom.uuid, **more)
      send_form(:post, "/work/days/#{day.id}/taps", patch: patch.id, kind:, key:, **more)
    end

    def card(patch)
      json("/work/days/#{day.id}/field.json")["cards"].find { |one| one["patch"] == patch.code }
    end

    # On another day.
    def travel(date)
      before = Store::Setting.read("today")
      Store::Setting.write("today", date.iso8601)
      yield
    ensure
      Store::Setting.write("today", before)
    end
  end
end
