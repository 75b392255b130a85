# frozen_string_literal: true

module Thistle
  module Store
    # Model: a shipped rule that a steward switched off for a property, with the reason and the name.
    class RuleSetting < Sequel::Model(:rule_settings)
      many_to_one :property, class: "Thistle::Store::Property"

      include Live

      def rule = Core::Decide::Rule.named(rule_key.to_sym)
    end
  end
end
