# frozen_string_literal: true

module Thistle
  module Store
    # What the law asks of plants on a property: by the lists that hold there, or as its steward wrote it down.
    module ByLaw
      # [Core::Identify::Law::Duty] of a plant: what a steward wrote down counts before lists.
      def duties_of(plant)
        own = laid_down[plant.key]
        return Core::Identify::Law.duties(plant.key, country, part) unless own

        own.map { |asked| Core::Identify::Law::Duty.new(asked: asked.to_sym, by: "the steward", source: "own_records") }
      end

      def asks?(plant, duty) = duties_of(plant).any? { |one| one.asked == duty }

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
