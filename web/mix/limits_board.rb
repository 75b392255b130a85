# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      # What the labels allow on a patch's ground this year, what lies there, and what a mix would bring it to.
      class LimitsBoard
        # acid_g: {active key => grams} of the mix, nil where grams are not known.
        def initialize(patch, today, products, acid_g = {})
          @patch, @today, @products, @acid_g = patch, today, products, acid_g
          @applications = Store::Applications.new(patch, today.year)
        end

        # [Core::Mix::Limit] for each acid that lies there or is planned.
        def rows
          @rows ||= acids.map do |acid|
            Core::Mix::Limit.new(acid:, lies: @applications.most(acid) || 0.0, planned: planned(acid), most: most(acid))
          end
        end

        def over = rows.select(&:over?)

        # Records of this year whose grams nobody typed: the totals are at least.
        def untold = @applications.untold

        private

        def acids = (@applications.totals.keys | @products.flat_map { |one| actives(one) }.map(&:acid)).sort
        def actives(product) = product.ingredients.map(&:active)

        def planned(acid)
          ground = @patch.ground or return 0.0
          grams = @acid_g.sum { |key, amount| Core::Knowledge.shipped.actives[key].acid == acid ? amount.to_f : 0.0 }
          grams / ground.area * 10_000
        end

        # The strictest of what the labels on the bench say.
        def most(acid)
          labels = @products.select(&:labelled?).flat_map(&:ingredients).select { |one| one.active.acid == acid }
          labels.filter_map(&:most_g_per_ha).min
        end
      end
    end
  end
end
