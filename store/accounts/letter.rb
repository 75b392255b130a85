# frozen_string_literal: true

module Thistle
  module Store
    # Model: a letter that this copy wrote. Without a way to send mail it lies here, and the keeper reads it out.
    class Letter < Sequel::Model(:letters)
      dataset_module do
        def newest = reverse(:id)
      end
    end
  end
end
