# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      module Forms
        # How much of a product is there, counted by hand.
        class Count < Form
          class Fields < Form::Contract
            params { required(:counted).filled(:float, gteq?: 0, lteq?: 1_000_000) }
          end

          def store(product) = ok? && product.count(si(:counted, :volume), today)
        end
      end
    end
  end
end
