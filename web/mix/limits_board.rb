# frozen_string_literal: true

module Thistle
  module Web
    module Mix
      # What the labels allow on a patch's ground this year, what lies there, and what a mix would bring it to.
      class LimitsBoard
        # acid_g: {active key => grams} of the mix, nil where grams are not known; area_m2: of the patch's ground, how
        # much it is for, nil for all of it.
        def initialize(patch, today, products, acid_g = {}, area_m2: nil)
          @patch, @today, @products, @acid_g, @area_m2 = patch, today, products, acid_g, area_m2
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
          grams / [@area_m2, ground.area].compact.select(&:positive?).min * 10_000
        end

        # The strictest of what the labels on the bench say.
        def most(acid) = (@allowed ||= Core::Mix::Limit.allowed(@products))[acid]
      end
    end
  end
end
