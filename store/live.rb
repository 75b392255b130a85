# frozen_string_literal: true

module Thistle
  module Store
    # For a model whose rows can be taken back: `live` are those that count.
    module Live
      def self.included(model)
        model.dataset_module { where(:live, Sequel[model.table_name][:deleted_at] => nil) }
      end
    end
  end
end
