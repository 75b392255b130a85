# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # The fewest visits on which nothing that comes up gets to seed: every cohort is taken on some day after it shows
      # and before its first seed. Each visit is as late as the cohort that seeds first allows, so that it takes as many
      # others as can be; no fewer will do (intervals and the points that stab them).
      class VisitSchedule
        # from: the first day on which it shows; to: the last before its seed; what: in words.
        Cohort = Value.define(:from, :to, :what)
        # on: its day; cohort: the one that sets it; many: how many it takes.
        Visit = Value.define(:on, :cohort, :many)

        # cohorts: [Cohort]; those that seed before they show can't be caught, and are left out.
        def initialize(cohorts)
          @cohorts = cohorts.select { |one| one.from <= one.to }.sort_by { |one| [one.to, one.from] }
        end

        # [Visit], the soonest first.
        def visits
          left, found = @cohorts, []
          until left.empty?
            first = left.first
            taken, left = left.partition { |one| one.from <= first.to }
            found << Visit.new(on: first.to, cohort: first, many: taken.size)
          end
          found
        end
      end
    end
  end
end
