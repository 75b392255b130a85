# frozen_string_literal: true

module Thistle
  module Web
    module Survey
      module Forms
        # A place whose history is asked for: latitude and longitude, degrees on WGS84.
        class Here < Form
          Fields = Class.new(Form::Contract) do
            params do
              required(:lat).filled(:float, gteq?: -90, lteq?: 90)
              required(:lon).filled(:float, gteq?: -180, lteq?: 180)
            end
          end

          # The place as a Shape; nil where none is said.
          def shape
            return unless ok? && values.size == 2

            Core::Survey::Shape.new({ "type" => "Point", "coordinates" => values.values_at(:lon, :lat) })
          end
        end
      end
    end
  end
end
