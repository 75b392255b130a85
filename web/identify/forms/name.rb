# frozen_string_literal: true

module Thistle
  module Web
    module Identify
      module Forms
        # The name of a patch by somebody who is sure of it: what, who says so, seen when.
        class Name < Form
          class Fields < Form::Contract
            params do
              required(:plant_key).filled(:string)
              required(:people).filled(:string, max_size?: 200)
              required(:named_on).filled(:date)
              optional(:note).filled(:string, max_size?: 2000)
            end
            rule(:named_on).validate(:day_of_record)
            rule(:plant_key) do
              key.failure("is not a plant in the library") unless Core::Knowledge.shipped.plants.key?(value)
            end
          end

          # True when the patch bears the name; false with errors.
          def store(patch)
            return false unless ok?

            patch.db.transaction do
              patch.update(plant_key: values[:plant_key])
              Store::Observation.told(patch, seen_on: values[:named_on], settled: true,
                                             **values.slice(:plant_key, :people, :note))
            end
            true
          end
        end
      end
    end
  end
end
