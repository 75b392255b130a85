# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      # Every herbicide method that a patch could have: what of it would reach the plant, and what would fall beside.
      class OffTargetBoard
        def initialize(patch, property, today, product)
          @patch, @property, @today, @product = patch, property, today, product
        end

        # [Core::Mix::OffTarget], the least of it first.
        def rows
          @rows ||= removals.filter_map { |removal| row(removal) }
                            .sort_by { |row| [row.off_target.last, row.removal.name] }
        end

        # The longest bar.
        def most = rows.map(&:amount).max

        # Are all in grams of acid, so that they can be compared?
        def grams? = rows.all?(&:acid_g)

        private

        def removals
          bench = Core::Decide::Bench.new(facts, @property.site(@today))
          bench.removals.select { |removal| removal.herbicide? && removal.reaches && removal.removes? }
        end

        def facts = @facts ||= @patch.facts(@today)

        def row(removal)
          litres = Core::Decide::Effort.new(removal, facts).litres
          return unless litres&.positive?

          product = product_for(removal)
          Core::Mix::OffTarget.of(removal, product, litres:, percent: product.usual_percent(removal))
        end

        # What is in use here for that, else the product on the bench where its label has the use, else planning values.
        def product_for(removal)
          use = removal.use
          Store::InUse.for(@property, use)&.label || (@product if @product.use(use)) || planned
        end

        def planned = Core::Mix::Product.planned(@product.main.active)
      end
    end
  end
end
