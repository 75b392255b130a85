# frozen_string_literal: true

require "dry/schema"

module Thistle
  module Web
    module Survey
      module Forms
        # How much stood there, as every sight of a patch may say it.
        module Amounts
          SCHEMA = Dry::Schema.Params do
            optional(:infested).filled(:float, gteq?: 0)
            optional(:cover_class).filled(:integer, gteq?: 1, lteq?: 6)
            optional(:cover_percent).filled(:float, gteq?: 0, lteq?: 100)
            optional(:density).filled(:float, gteq?: 0, lteq?: 10_000)
            optional(:height).filled(:float, gt?: 0, lteq?: 10_000)
            optional(:stage).filled(:string, included_in?: Core::Season::Phenology::STAGES.map(&:to_s))
            optional(:plants).filled(:integer, gteq?: 0, lteq?: 1_000_000)
            Core::Removal::SIZES.each { |size| optional(:"stems_#{size}").filled(:integer, gteq?: 0, lteq?: 1_000_000) }
          end

          # Core::Survey::Amount of what was typed.
          def amount
            counted = Core::Removal::SIZES.to_h { |size| [size, values[:"stems_#{size}"]] }.compact
            Core::Survey::Amount.new(infested_m2: si(:infested, :area), cover_class: values[:cover_class],
                                     cover_percent: values[:cover_percent],
                                     density_m2: values[:density], height_cm: values[:height], stage: values[:stage],
                                     plants: values[:plants],
                                     stems: counted.empty? ? nil : counted)
          end
        end
      end
    end
  end
end
