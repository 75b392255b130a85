# frozen_string_literal: true

module Thistle
  module Web
    module Replant
      module Routes
        # Spacing against weeding; gathering seed of our own.
        module Benches
          def self.registered(app)
            app.get "/replant/spacing" do
              form = Forms::Spacing.asked(params, property.rates.hour, units:, today:)
              show("replant/spacing", form:) { Answers.spacing(form) }
            end

            app.get "/replant/gather" do
              board = GatherBoard.new(params, property, units, today)
              show("replant/gather", board:) { Answers.gather(board) }
            end
          end
        end
      end
    end
  end
end
