# frozen_string_literal: true

module Thistle
  module Web
    module Records
      module Forms
        # Who corrects a record or takes it back, and why; version is how many amendments they saw.
        class Amend < Form
          class Fields < Form::Contract
            option :reasoned, default: -> { true }
            params do
              required(:person).filled(:string, max_size?: 120)
              optional(:reason).filled(:string, max_size?: 1000)
              required(:version).filled(:integer, gteq?: 0)
            end
            rule(:reason) { key.failure("is kept with the record: say why") if reasoned && value.to_s.empty? }
          end
        end
      end
    end
  end
end
