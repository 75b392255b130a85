# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        TagWhenNothingWorks = Rule.new(
          :tag_when_nothing_works,
          about: :marking, looks: %i[soil phases licensed stance settled],
          source: "common_practice",
          says: "Marking is for when nothing else can be done."
        ) do |now, removal|
          next if removal.is?(:topping)

          if removal.key == "tag_and_return"
            next go("Not settled: tape it and mark the point, so that whoever names it finds it.") unless now.settled

            stuck = now.soil == :dry || !now.in_leaf?
            next no("The ground is workable: no need to only mark it.") unless stuck

            go "The soil is too dry to pull, or there are no green leaves to spray. Tape the plant, mark the place, " \
               "come back after rain."
          elsif now.licensed && now.stance != "none"
            no "Someone licensed is here: treat it instead."
          else
            go "It stays standing, limbed and flagged, until someone licensed comes. It does not sucker."
          end
        end
      end
    end
  end
end
