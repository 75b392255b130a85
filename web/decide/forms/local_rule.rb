# frozen_string_literal: true

module Thistle
  module Web
    module Decide
      module Forms
        # A rule that a steward adds for a property: no such work, somewhere, some time of the year, and why.
        class LocalRule < Form
          class Fields < Form::Contract
            params do
              required(:about).filled(:string, included_in?: Words::WORK.keys)
              optional(:zone).filled(:integer)
              optional(:plant).filled(:string, included_in?: Core::Knowledge.shipped.plants.keys)
              optional(:from).filled(:date)
              optional(:to).filled(:date)
              required(:reason).filled(:string, min_size?: 3, max_size?: 500)
              required(:person).filled(:string, max_size?: 120)
            end
            rule(:from, :to).validate(:both_or_neither)
          end

          def store(property, today)
            return unless ok?
            if values[:zone] && property.zones_dataset.where(id: values[:zone]).empty?
              return failed(:zone, "is not a zone of this property") && nil
            end

            Store::LocalRule.create(property_id: property.id, about: values[:about], zone_id: values[:zone],
                                    plant_key: values[:plant],
                                    from_md: values[:from]&.strftime("%m-%d"), to_md: values[:to]&.strftime("%m-%d"),
                                    reason: values[:reason],
                                    person: values[:person], said_on: today)
          end
        end
      end
    end
  end
end
