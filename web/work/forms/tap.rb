# frozen_string_literal: true

module Thistle
  module Web
    module Work
      module Forms
        # One tap in the field: its own key, so that it counts once however often it is sent.
        class Tap < Form
          SIZES = Core::Removal::SIZES
          WHAT = { "seed" => Core::Recheck::SeedFall::ANSWERS.keys, "treated" => %w[treated cut],
                   "stems" => SIZES }.freeze

          class Fields < Form::Contract
            params do
              required(:kind).filled(:string, included_in?: Store::Tap::KINDS)
              required(:key).filled(:string, format?: /\A[\w-]{8,64}\z/)
              optional(:what).filled(:string, max_size?: 400)
              optional(:amount).filled(:integer, gteq?: -1000, lteq?: 1000)
              optional(:at).filled(:integer)
            end
            rule(:kind, :what) do
              allowed = WHAT[values[:kind]]
              key(:what).failure("is none of them") if values[:what] && allowed && !allowed.include?(values[:what])
            end
            rule(:kind, :amount) do
              if %w[plants stems people].include?(values[:kind]) && !values[:amount]
                key(:amount).failure("is needed")
              end
            end
          end

          # The stored tap; nil where its key is another's. The phone says when, also of yesterday; a clock that
          # is ahead is not believed.
          def store(work_day, patch, now = Time.now.utc)
            said = values[:at] && Time.at(values[:at] / 1000.0).utc
            at = said && believed?(said, work_day, now) ? said : now
            told = { kind: values[:kind], patch_id: patch.id, what: values[:what], amount: values[:amount] }
            kept = Store::Tap.keep(work_day, key: values[:key], at:, **told)
            kept if kept.values >= { work_day_id: work_day.id, **told }
          end

          private

          # Kept on the phone over night or longer is right; before the day or in time to come is not.
          def believed?(said, work_day, now)
            said.between?(work_day.held_on.to_time.utc - Routes::Field::DAY, now + Routes::Field::FAR_OFF)
          end
        end
      end
    end
  end
end
