# frozen_string_literal: true

module Thistle
  module Web
    module Decide
      module Forms
        # What a property, or one patch of it, answers where practitioners differ; and what work costs there.
        class Schools < Form
          QUESTIONS = Core::Knowledge.shipped.schools.freeze
          MONEY = %i[hour_cost litre_cost].freeze

          class Fields < Form::Contract
            params do
              QUESTIONS.each { |key, school| optional(key.to_sym).filled(:string, included_in?: school.options.keys) }
              optional(:hour_cost).filled(:float, gteq?: 0, lteq?: 100_000)
              optional(:litre_cost).filled(:float, gteq?: 0, lteq?: 100_000)
              optional(:currency).filled(:string, max_size?: 4)
            end
          end

          def self.of(property, patch, today)
            kept = property.schools_kept.transform_keys(&:to_s).merge("herbicide" => property.stance)
            own = patch ? patch.own_schools : kept
            money = property.values.slice(*MONEY, :currency).compact.transform_keys(&:to_s)
                            .transform_values { |value| value.to_s.delete_suffix(".0") }
            new(own.merge(money), units: property.measures, today:)
          end

          def store(property, patch)
            return false unless ok?

            answers = values.slice(*QUESTIONS.keys.map(&:to_sym))
            return patch.update(schools: JSON.generate(answers)) if patch

            property.update(schools: JSON.generate(answers.except(:herbicide)),
                            stance: answers[:herbicide] || property.stance,
                            hour_cost: values[:hour_cost], litre_cost: values[:litre_cost], currency: values[:currency])
          end
        end
      end
    end
  end
end
