# frozen_string_literal: true

module Thistle
  module Web
    module Decide
      module Forms
        # Switches a rule off for a property, with a reason and a name. Safety and legal rules refuse.
        class RuleOff < Form
          class Fields < Form::Contract
            params do
              required(:rule).filled(:string, included_in?: Core::Decide::Rule.all.map { |rule| rule.key.to_s })
              required(:reason).filled(:string, min_size?: 3, max_size?: 500)
              required(:person).filled(:string, max_size?: 120)
            end
            rule(:rule) do
              if value && Core::Decide::Rule.named(value.to_sym).binding?
                key.failure("is a safety or legal rule and cannot be switched off. You can add a stricter rule")
              end
            end
          end

          def store(property, today)
            return unless ok?

            Store::RuleSetting.live.where(property_id: property.id, rule_key: values[:rule])
                              .update(deleted_at: Time.now.utc)
            Store::RuleSetting.create(property_id: property.id, rule_key: values[:rule], reason: values[:reason],
                                      person: values[:person],
                                      said_on: today)
          end
        end
      end
    end
  end
end
