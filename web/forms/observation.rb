# frozen_string_literal: true

module Thistle
  module Web
    module Forms
      # A sight of a patch as it is corrected: its day, its name, how much stood there.
      class Observation < Form
        class Fields < Form::Contract
          params do
            required(:seen_on).filled(:date)
            optional(:plant_key).filled(:string)
            optional(:settled).filled(:bool)
            optional(:infested).filled(:float, gteq?: 0)
            optional(:cover_class).filled(:integer, gteq?: 1, lteq?: 6)
            optional(:cover_percent).filled(:float, gteq?: 0, lteq?: 100)
            optional(:density).filled(:float, gteq?: 0, lteq?: 10_000)
            optional(:height).filled(:float, gt?: 0, lteq?: 10_000)
            optional(:stage).filled(:string, included_in?: Core::Season::Phenology::STAGES.map(&:to_s))
            Core::Removal::SIZES.each { |size| optional(:"stems_#{size}").filled(:integer, gteq?: 0, lteq?: 1_000_000) }
            optional(:people).filled(:string, max_size?: 400)
            optional(:note).filled(:string, max_size?: 2000)
          end
          rule(:seen_on).validate(:day_of_record)
          rule(:plant_key) { key.failure("is not a plant in the library") if value && !Core::Knowledge.shipped.plants.key?(value) }
          rule(:settled, :plant_key) { key(:plant_key).failure("is needed where the name is certain") if values[:settled] && !values[:plant_key] }
        end

        # A form filled from a record.
        def self.of(seen, units, today)
          stems = JSON.parse(seen.stems_by_size || "{}").transform_keys { |size| "stems_#{size}" }
          columns = seen.values.slice(:seen_on, :plant_key, :settled, :cover_class, :cover_percent, :height_cm, :stage, :people, :note)
          columns.merge!(infested: units.from_si(:area, seen.infested_m2)&.round(1), density: seen.density_m2, height: columns.delete(:height_cm))
          columns.merge!(stems)
          new(typed(columns), units:, today:)
        end

        # The columns as typed.
        def columns
          counted = Core::Removal::SIZES.to_h { |size| [size, values[:"stems_#{size}"]] }.compact
          { **%i[seen_on plant_key cover_class cover_percent stage people note].to_h { |field| [field, values[field]] },
            settled: values[:settled] || false, infested_m2: si(:infested, :area), density_m2: values[:density], height_cm: values[:height],
            stems_by_size: counted.empty? ? nil : JSON.generate(counted) }
        end
      end
    end
  end
end
