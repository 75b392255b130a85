# frozen_string_literal: true

module Thistle
  module Store
    # What the law asks of plants on a property, by the lists that hold there or as its steward wrote it down; and
    # which plants its people watch for.
    module ByLaw
      # [Core::Identify::Law::Duty] of a plant: what a steward wrote down counts before lists.
      def duties_of(plant)
        own = laid_down[plant.key] or return listed_duties(plant)
        own.map { |asked| Core::Identify::Law::Duty.new(asked: asked.to_sym, by: "the steward", source: "own_records") }
      end

      # Those by lists alone.
      def listed_duties(plant) = Core::Identify::Law.duties(plant.key, country, part)

      def asks?(plant, duty) = duties_of(plant).any? { |one| one.asked == duty }

      # Plants that are reported here before anyone removes them: new to the region, or watched for.
      def reports_first?(plant) = plant.new_to?(region) || watched?(plant) || asks?(plant, :report)
      def watched?(plant) = watch.include?(%("#{plant.key}"))

      # Begins or ends the watch for a plant.
      def toggle_watch(plant)
        db.transaction do # two stewards at once lose nothing of each other's
          keys = JSON.parse(refresh.watch)
          update(watch: JSON.generate(keys.include?(plant.key) ? keys - [plant.key] : keys + [plant.key]))
        end
      end

      # {plant key => what a steward wrote down}
      def laid_down = @laid_down ||= JSON.parse(duties)

      # Writes down what the law asks of a plant: keys of Law::DUTIES; [] for nothing, nil for what lists say.
      def lay_down(plant, asked)
        db.transaction do # two stewards at once lose nothing of each other's
          told = refresh.laid_down.except(plant.key)
          update(duties: JSON.generate(asked ? told.merge(plant.key => asked) : told))
        end
      end
    end
  end
end
