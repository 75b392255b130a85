# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      module Forms
        # Where outside map tiles come from; empty for nowhere.
        class Tiles < Form
          ADDRESS = %r{\Ahttps://[\w.-]+(:\d+)?/\S*\z}
          MARKS = %w[{z} {x} {y}].freeze

          class Fields < Form::Contract
            params do
              optional(:tile_url).filled(:string)
            end
            rule(:tile_url) do
              known = value.nil? || (ADDRESS.match?(value) && MARKS.all? { |mark| value.include?(mark) })
              key.failure("A tile address begins with https:// and holds {z}, {x} and {y}.") unless known
            end
          end

          def store(property) = ok? && property.update(tile_url: values[:tile_url]).then { true }
        end
      end
    end
  end
end
