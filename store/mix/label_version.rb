# frozen_string_literal: true

module Thistle
  module Store
    # Model: what the label of a product said before it was changed.
    class LabelVersion < Sequel::Model(:label_versions)
      # The product as it was.
      def label = Product.new.set(JSON.parse(said).except("id")).tap { |one| one.values[:id] = product_id }.label
    end
  end
end
