# frozen_string_literal: true

module Thistle
  module Store
    # Reading: what labels still allow on the ground of patches that a season plan may treat (Core::Decide::LabelCaps).
    # Patches whose ground overlaps share what is left there; a year is a calendar year.
    class LabelShares
      # How many of the patches would be sprayed with something whose yearly most nobody typed.
      attr_reader :unknown

      # options: [Core::Decide::Plan::Option]; weeks: Mondays.
      def initialize(property, options, weeks)
        @property, @weeks = property, weeks
        @products, @unknown = {}, 0
        @options = options.select { |option| option.litres.positive? }.group_by(&:patch)
      end

      # The LabelCaps; of pieces that the same options share, the one with least left.
      def caps
        @caps ||= begin
          found = @options.keys.flat_map { |id| pieces(id) }.group_by(&:first)
          Core::Decide::LabelCaps.new(found.map { |uses, some| [uses, some.map(&:last).min] })
        end
      end

      private

      # [[{Option => g on a hectare of one part}, what is left]] on each piece of a patch, for each acid and year.
      def pieces(id)
        told = @options[id].any? { |option| doses(option).any? }
        @unknown += 1 unless told
        patch = told ? patches[id] : nil
        return [] unless patch&.ground

        @options[id].group_by { |option| year(option) }.flat_map do |year, own|
          applications = Applications.new(patch, year)
          own.flat_map { |option| doses(option).keys }.uniq.flat_map do |acid|
            left_on(applications, year, acid, id)
          end
        end
      end

      # By the strictest of the labels that would go onto a piece.
      def left_on(applications, year, acid, id)
        applications.pieces(acid, sharing(id)).map do |lies, others|
          uses = [id, *others].flat_map { |one| @options.fetch(one, []) }
                              .select { |option| year(option) == year && doses(option).key?(acid) }
          most = uses.map { |option| doses(option)[acid].last }.min
          [uses.to_h { |option| [option, doses(option)[acid].first] }, [most - lies, 0.0].max]
        end
      end

      # {acid => [g on a hectare of the patch, in one part; the label's most]} of what the product in use puts there.
      def doses(option)
        (@doses ||= {})[option] ||= begin
          label = product(option.method)
          area = label && area_of(patches[option.patch])
          area&.positive? ? dosed(option, label, area) : {}
        end
      end

      # What is treated of a patch's ground, m²: what is infested of it, where that is known.
      def area_of(patch)
        ground = patch&.ground
        ground && [ground.area, patch.infested&.first].compact.select(&:positive?).min
      end

      def dosed(option, label, area)
        percent = label.usual_percent(Core::Knowledge.shipped.removal(option.method))
        label.ingredients.select { |one| one.most_g_per_ha && one.acid_per_litre }.to_h do |one|
          grams = option.litres * percent / 100 * one.acid_per_litre
          [one.active.acid, [grams / area * 10_000, one.most_g_per_ha]]
        end
      end

      def product(method)
        @products.fetch(method) do
          use = Core::Knowledge.shipped.removal(method).use
          @products[method] = use && InUse.for(@property, use)&.label
        end
      end

      # {patch id => its ground} of those to be treated that overlap a patch.
      def sharing(id)
        (@sharing ||= {})[id] ||= Overlaps.with(patches[id]).keys.select { |other| @options.key?(other.id) }
                                          .to_h { |other| [other.id, other.ground] }
      end

      def patches = @patches ||= Patch.where(id: @options.keys).all.to_h { |patch| [patch.id, patch] }
      def year(option) = @weeks[option.week].year
    end
  end
end
