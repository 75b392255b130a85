# frozen_string_literal: true

module Thistle
  module Web
    module Recheck
      module Forms
        # A visit asked for by hand: on a day, or after something that the year does.
        class Visit < Form
          WAITS = %w[date rain frosts anchor browned].freeze

          class Fields < Form::Contract
            params do
              required(:kind).filled(:string, included_in?: %w[check treat])
              required(:reason).filled(:string, max_size?: 200)
              required(:wait).filled(:string, included_in?: WAITS)
              optional(:due_on).filled(:date)
              optional(:rain).filled(:float, gt?: 0, lteq?: 500)
              optional(:within).filled(:integer, gteq?: 1, lteq?: 30)
              optional(:frosts).filled(:integer, gteq?: 1, lteq?: 30)
              optional(:anchor).filled(:string)
            end
            rule(:due_on, :wait) do
              next unless values[:wait] == "date"

              key(:due_on).failure("is needed") unless values[:due_on]
              key(:due_on).failure("has passed") if values[:due_on] && values[:due_on] < today
            end
            rule(:rain, :wait) { key(:rain).failure("is needed") if values[:wait] == "rain" && !values[:rain] }
            rule(:frosts, :wait) { key(:frosts).failure("are needed") if values[:wait] == "frosts" && !values[:frosts] }
            rule(:anchor, :wait) do
              if values[:wait] == "anchor" && !Core::Knowledge.shipped.anchors.key?(values[:anchor])
                key(:anchor).failure("is not one of this year's")
              end
            end
          end

          # Is it asked for now? nil with errors.
          def store(patch, site)
            return unless ok?

            due = event ? event.due(site, site.today) : values[:due_on]
            return failed(:wait, "never comes here, as far as ten years say") && nil unless due

            Store::Wishes.ask(patch, kind: values[:kind], reason: values[:reason], due_on: due, since_on: site.today,
                                        event: event && JSON.generate(event.to_data))
            true
          end

          private

          def event
            data = { "rain" => { "rain_mm" => si(:rain, :rain), "within" => values[:within] || 3 },
                     "frosts" => { "frosts" => values[:frosts] },
                     "anchor" => { "anchor" => values[:anchor] }, "browned" => { "browned" => true } }[values[:wait]]
            data && (@event ||= Core::Season::Event.read(data))
          end
        end
      end
    end
  end
end
