# frozen_string_literal: true

module Thistle
  module Store
    # Reading: how much of each product the season plans still want, where one is in use for the work, by its id: mL.
    module PlanNeeds
      module_function

      def call(properties, today)
        properties.each_with_object(Hash.new(0.0)) do |property, all|
          items(property, today).each do |item|
            removal = Core::Knowledge.shipped.removal(item[:method])
            product = InUse.for(property, removal.use) if removal.herbicide?
            next unless product

            all[product.id] += item[:litres] * 1000 * product.label.usual_percent(removal) / 100
          end
        end
      end

      # What the current plan has from this week on.
      def items(property, today)
        plan = SeasonPlan.current(property)
        return [] unless plan&.answered

        monday = today - ((today.wday - 1) % 7)
        plan.answered[:items].select { |item| item[:litres].to_f.positive? && Date.iso8601(item[:week].to_s) >= monday }
      end
      private_class_method :items
    end
  end
end
