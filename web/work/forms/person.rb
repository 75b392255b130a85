# frozen_string_literal: true

module Thistle
  module Web
    module Work
      module Forms
        # Someone of the group: what they do, what they were trained for, what they cannot do, whom to call.
        class Person < Form
          CREW = Core::Knowledge.shipped.crew
          LISTS = Store::Person::LISTS
          PLAIN = %i[name licence_number licence_category licence_expires_on emergency note].freeze

          class Fields < Form::Contract
            params do
              required(:name).filled(:string, max_size?: 80)
              LISTS.each { |list| optional(list).filled(:string, max_size?: 400) }
              optional(:licence_number).filled(:string, max_size?: 80)
              optional(:licence_category).filled(:string, max_size?: 80)
              optional(:licence_expires_on).filled(:date)
              optional(:emergency).filled(:string, max_size?: 400)
              optional(:note).filled(:string, max_size?: 2000)
              optional(:another).filled(:bool)
              optional(:lock_version).filled(:integer)
            end
            rule(:licence_expires_on) do
              key.failure("is not between 1990 and 2100") if value && !value.year.between?(1990, 2100)
            end
            LISTS.each do |list|
              rule(list) do
                unknown = value.to_s.split(",") - CREW[list.to_s].keys
                key.failure("holds a choice that is not on the list") if unknown.any?
              end
            end
            rule(:roles, :licence_expires_on) do
              if values[:roles].to_s.split(",").include?("applicator") && !values[:licence_expires_on]
                key(:licence_expires_on).failure("is needed: without it nobody is planned at the herbicide")
              end
            end
          end

          # A form filled from a person.
          def self.of(person, units, today)
            known = person.values.slice(*PLAIN, :lock_version)
            lists = LISTS.to_h { |list| [list, JSON.parse(person[list]).join(",")] }
            new(typed({ **known, **lists }), units:, today:)
          end

          # Boxes that were ticked are one answer.
          def initialize(params, **context)
            lists = LISTS.map(&:to_s)
            ticked = params.to_h.slice(*lists).select { |_, value| value.is_a?(Array) }
            super(params.to_h.merge(ticked.transform_values { |all| all.grep(String).reject(&:empty?).join(",") }),
                  **context)
          end

          def ticked?(list, key) = self[list].to_s.split(",").include?(key)

          # The stored person, new or changed, or nil with errors.
          def store(person = Store::Person.new)
            settle_name(person) if ok?
            return unless ok?

            person.values[:lock_version] = values[:lock_version] if values[:lock_version] && !person.new?
            person.set(PLAIN.to_h { |name| [name, values[name]] })
            person.set(LISTS.to_h { |list| [list, JSON.generate(values[list].to_s.split(","))] })
            person.save
          rescue Sequel::NoExistingObject
            failed(:base, "Someone else changed this person meanwhile: reload, and enter it again.") && nil
          end

          private

          # Nobody on the list is called that, or nearly, unless it is said to be another.
          def settle_name(person)
            alike = Store::Person.alike(values[:name], except: person.id)
            return if alike.empty? || values[:another]

            errors[:name] = "is much like #{alike.first(3).join(", ")}: say below that it is another person"
          end
        end
      end
    end
  end
end
