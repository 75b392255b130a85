# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      module Forms
        # A place where seed may be gathered: of what, and how many plants stand there.
        class Place < Survey::Forms::Drawn
          class Fields < Form::Contract
            params do
              required(:geometry).filled(:string)
              required(:native).filled(:string, included_in?: Core::Knowledge.shipped.palette.keys)
              optional(:plants).filled(:integer, gt?: 0, lteq?: 10_000_000)
              optional(:note).filled(:string, max_size?: 500)
            end
          end

          # The stored place, or nil with errors.
          def store(property)
            shape = read_shape or return
            return failed(:geometry, "A place is one point.") && nil unless shape.positions.size == 1

            longitude, latitude = shape.positions.first
            Store::GatherPlace.create(property_id: property.id, native_key: values[:native], longitude:, latitude:,
                                      plants: values[:plants], note: values[:note], created_at: Time.now)
          end
        end
      end
    end
  end
end
