# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      module Forms
        # A count of what took: the living of those looked at of one native, or percents of cover in frames.
        class Took < Form
          FRAMES = 400

          class Fields < Form::Contract
            params do
              required(:counted_on).filled(:date)
              optional(:planting).filled(:integer)
              optional(:alive).filled(:integer, gteq?: 0, lteq?: 1_000_000)
              optional(:looked_at).filled(:integer, gt?: 0, lteq?: 1_000_000)
              optional(:frames).filled(:string, max_size?: 4000)
              optional(:note).filled(:string, max_size?: 500)
            end
            rule(:counted_on).validate(:day_of_record)
            rule(:alive, :looked_at) do
              alive, all = values[:alive], values[:looked_at]
              key(:looked_at).failure("is needed beside the living") if alive.is_a?(Integer) && all.nil?
              both = [alive, all].all?(Integer)
              key(:alive).failure("is more than were looked at") if both && alive > all
            end
            rule(:alive, :frames) do
              key(:alive).failure("or the frames: say what was counted") unless values[:alive] || values[:frames]
            end
            rule(:frames) do
              next unless value.is_a?(String)

              right = Took.percents(value)
              key.failure("are percents from 0 to 100, with spaces between, #{FRAMES} at most") unless right
            end
          end

          # Percents of a text, or nil for what is none.
          def self.percents(text)
            numbers = text.tr("%", " ").split(/[\s;,]+/).map { |one| Float(one, exception: false) }
            numbers if numbers.any? && numbers.size <= FRAMES && numbers.all? { |one| one&.between?(0, 100) }
          end

          def columns
            frames = values[:frames] && JSON.generate(self.class.percents(values[:frames]))
            { counted_on: values[:counted_on], alive: values[:alive], looked_at: values[:alive] && values[:looked_at],
              frames:, note: values[:note] }
          end
        end
      end
    end
  end
end
