# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      module Forms
        # A sight of a patch as it is corrected: its day, its name, how much stood there.
        class Observation < Form
          include Amounts

          class Fields < Form::Contract
            params(Amounts::SCHEMA) do
              required(:seen_on).filled(:date)
              optional(:plant_key).filled(:string)
              optional(:settled).filled(:bool)
              optional(:people).filled(:string, max_size?: 400)
              optional(:note).filled(:string, max_size?: 2000)
            end
            rule(:seen_on).validate(:day_of_record)
            rule(:plant_key) do
              key.failure("is not a plant in the library") if value && !Core::Knowledge.shipped.plants.key?(value)
            end
            rule(:settled, :plant_key) do
              key(:plant_key).failure("is needed where the name is certain") if values[:settled] && !values[:plant_key]
            end
          end

          # A form filled from a record.
          def self.of(seen, units, today)
            stems = JSON.parse(seen.stems_by_size || "{}").transform_keys { |size| "stems_#{size}" }
            columns = seen.values.slice(:seen_on, :plant_key, :settled, :cover_class, :cover_percent, :height_cm,
                                        :stage, :plants, :people, :note)
            columns.merge!(infested: units.from_si(:area, seen.infested_m2)&.round(1), density: seen.density_m2,
                           height: columns.delete(:height_cm))
            columns.merge!(stems)
            new(typed(columns), units:, today:)
          end

          # The columns as typed.
          def columns
            said = amount
            told = %i[seen_on plant_key people note].to_h { |field| [field, values[field]] }
            stems_by_size = said.stems && JSON.generate(said.stems)
            { **told, settled: values[:settled] || false, **said.to_h.except(:gross_m2, :stems), stems_by_size: }
          end
        end
      end
    end
  end
end
