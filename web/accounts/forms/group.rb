# frozen_string_literal: true

module Thistle
  module Web
    module Accounts
      module Forms
        # To which group a property belongs: one that there is, or a new one.
        class Group < Form
          class Fields < Form::Contract
            params { required(:name).filled(:string, max_size?: Store::Group::MOST_LETTERS) }
          end

          # The group, or nil with errors.
          def store(property)
            return unless ok?

            Store::Group.called(values[:name]).tap { |group| group.take(property) unless group.id == property.group_id }
          end
        end
      end
    end
  end
end
