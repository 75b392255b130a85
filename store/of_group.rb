# frozen_string_literal: true

module Thistle
  module Store
    # For a model whose rows are a group's own: `here` are those of the group at hand. A record finds what it names by
    # its id, whosever that is; whoever chooses, lists or opens asks `here`.
    module OfGroup
      # Of a group, nil for all; of the one at hand.
      module Narrowed
        def of_group(id) = id ? where(Sequel[model.table_name][:group_id] => id) : self
        def here = of_group(Acting.group_id)
      end

      def self.included(model)
        model.dataset_module(Narrowed)
      end

      def before_create
        self.group_id ||= Acting.group_id || Group::FIRST
        super
      end
    end
  end
end
