# frozen_string_literal: true

module Thistle
  module Core
    module Work
      # Small jobs that are alike and near each other, gathered so that a pair does several in one go.
      class Rounds
        SMALL_H, ROUND_H, NEAR_M = 0.8, 1.4, 250.0 # person-hours of a job, of a round; m between its stops (memory)

        # jobs: [Job]; alone: ids of those that stay by themselves.
        def initialize(jobs, alone: [])
          @small, @rest = jobs.partition { |job| job.hours <= SMALL_H && job.at && !alone.include?(job.id) }
        end

        # [Job]; a round's id is the list of its jobs' ids, and it knows its parts.
        def jobs
          alike = @small.group_by { |job| [job.needs, job.cannot, job.fit, job.late, job.least] }
          @rest + alike.values.flat_map { |some| gathered(some) }
        end

        private

        # The best first, with what is nearest to it.
        def gathered(jobs)
          left, found = jobs.sort_by { |job| -job.score }, []
          while (first = left.shift)
            some = filled(first, left)
            left.reject! { |job| some.any? { |one| one.id == job.id } }
            found << (some.size > 1 ? round(some) : first)
          end
          found
        end

        def filled(first, others)
          near = others.select { |job| apart(job, first) <= NEAR_M }.sort_by { |job| apart(job, first) }
          near.each_with_object([first]) do |job, some|
            some << job if some.sum(&:hours) + job.hours <= ROUND_H && some.none? { |one| one.id == job.id }
          end
        end

        def round(jobs)
          first = jobs.first
          first.with(id: jobs.map(&:id), hours: jobs.sum(&:hours), score: jobs.sum(&:score), parts: jobs,
                     most: [jobs.map(&:most).max, first.least].max, tools: jobs.map(&:tools).reduce(:merge))
        end

        def apart(one, other) = Math.hypot(one.at[0] - other.at[0], one.at[1] - other.at[1])
      end
    end
  end
end
