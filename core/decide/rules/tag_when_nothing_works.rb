# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        TagWhenNothingWorks = Rule.new(:tag_when_nothing_works, about: :marking, source: "common_practice") do |now, removal|
          if removal.key == "tag_and_return"
            stuck = now.soil == :dry || !now.in_leaf?
            next no("The ground is workable: no need to only mark it.") unless stuck

            go "Too dry to pull and too rank to spray: tape it, mark it, come back after rain."
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
