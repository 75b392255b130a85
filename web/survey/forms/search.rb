# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      module Forms
        # Ground that was searched: where, when, how wide the eye reached, for what, and what was there.
        class Search < Drawn
          DAY = "searched_on"

          class Fields < Form::Contract
            params do
              required(:geometry).filled(:string)
              required(:searched_on).filled(:date)
              optional(:sight).filled(:float, gt?: 0, lteq?: 700)
              optional(:minutes).filled(:float, gt?: 0, lteq?: 3000)
              optional(:people).filled(:string, max_size?: 400)
              optional(:note).filled(:string, max_size?: 2000)
            end
            rule(:searched_on).validate(:day_of_record)
          end

          NOT_SOUGHT = "Choose the plants that you searched for. Without them, an absence cannot be recorded."

          # The stored search, or nil with errors. plants, found: lists of plant keys; more: columns that nobody types.
          def store(property, plants, found, **more)
            library = Core::Knowledge.shipped.plants
            plants, found = [plants, found].map { |keys| Array(keys).select { |key| library.key?(key) } }
            errors[:plants] = NOT_SOUGHT if plants.empty?
            shape = read_shape or return
            Store::Search.record(property, shape, plants: plants | found, found:, sight_m: si(:sight, :length),
                                                  **values.slice(:searched_on, :minutes, :people, :note), **more)
          rescue Core::BadInput => e
            failed(e.field, e.message) && nil
          end
        end
      end
    end
  end
end
