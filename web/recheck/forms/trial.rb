# frozen_string_literal: true

module Thistle
  module Web
    module Recheck
      module Forms
        # A question about two methods, or two ways of one, on a patch.
        class Trial < Form
          class Fields < Form::Contract
            params do
              required(:question).filled(:string, max_size?: 160)
              required(:first_method).filled(:string, included_in?: Core::Knowledge.shipped.methods_of_removal.keys)
              required(:second_method).filled(:string, included_in?: Core::Knowledge.shipped.methods_of_removal.keys)
              optional(:first_how).filled(:string, max_size?: 80)
              optional(:second_how).filled(:string, max_size?: 80)
              required(:count).filled(:integer, gteq?: Core::Recheck::Trial::LEAST, lteq?: Core::Recheck::Trial::MOST)
            end
            rule(:second_method) do
              same = values[:first_method] == value && values[:first_how].to_s.casecmp?(values[:second_how].to_s)
              key.failure("is the same as the first: say what sets them apart") if same
            end
          end

          # The stored trial with its first tags, or nil with errors.
          def store(patch, today)
            return unless ok?

            Store::TrialRun.db.transaction do
              kept = values.except(:count)
              run = Store::TrialRun.create(patch_id: patch.id, begun_on: today, seed: patch.id + values[:count], **kept)
              run.give_out(values[:count], today)
            end
          end
        end
      end
    end
  end
end
