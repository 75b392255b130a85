# frozen_string_literal: true

module Thistle
  module Store
    # Reading: labels as they were when a record was made, each product read once.
    class Labels
      # The Core::Mix::Product of a product's id at a version of it; today's where none is named, nil where it is not on
      # record.
      def of(id, version)
        product, past = found[id]
        return unless product

        (version && past.find { |one| one.version >= version })&.then { |one| read(one) } || product.label
      end

      private

      def found
        @found ||= Hash.new do |all, id|
          all[id] = id && Product[id]&.then do |product|
            [product, LabelVersion.where(product_id: id).order(:version).all]
          end
        end
      end

      def read(version) = (@read ||= {})[version.id] ||= version.label
    end
  end
end
