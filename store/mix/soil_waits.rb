# frozen_string_literal: true

module Thistle
  module Store
    # Reading: what the actives that were used on a ground keep from being planted (Core::Mix::Wait), where the
    # label of what was used does not say.
    module SoilWaits
      LONGEST = Core::Knowledge.shipped.actives.values.flat_map { |one| one.replant_days.values.map(&:last) }.max

      module_function

      # [Core::Mix::Wait] of works that hold on a day or later.
      def of(works, today)
        labels = Labels.new
        used = works.flat_map { |work| actives(work, labels).map { |active| [active, work.done_on] } }
        Core::Mix::Wait.of(used, today)
      end

      # Those of a record whose label does not say how long; without a product the one that was named.
      def actives(work, labels)
        poured = work.poured(labels)
        return [Core::Knowledge.shipped.actives[work.active_key]].compact if poured.empty?

        poured.map(&:label).reject(&:plant_back_days).flat_map { |label| label.ingredients.map(&:active) }
      end
      private_class_method :actives
    end
  end
end
