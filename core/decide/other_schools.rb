# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # What the bench would say if this ground kept another school: its best move then, and what that would take.
      class OtherSchools
        # best: the Verdict there, nil where nothing is left to do; same: would the move be the one it is now?
        Otherwise = Value.define(:school, :option, :best, :same)
        # Questions whose answer changes a verdict or what it takes.
        ASKED = %w[herbicide seed_bank suckering_trees waxy_leaves cut_when].freeze

        def initialize(bench)
          @bench, @facts = bench, bench.facts
        end

        # [Otherwise], of the schools that would change the move or what it takes until quiet.
        def all
          @all ||= ASKED.map { |key| Knowledge.shipped.schools.fetch(key) }
                        .select { |school| school.about?(@facts.plant) }
                        .flat_map { |school| others(school).filter_map { |option| otherwise(school, option) } }.freeze
        end

        # The option that counts here now.
        def kept(school) = school.key == "herbicide" ? @facts.stance : @facts.school(school.key.to_sym)

        private

        def others(school) = school.options.keys - [kept(school)]

        def otherwise(school, option)
          best = @bench.with(**change(school.key, option)).best
          return if figures(best) == figures(@bench.best)

          Otherwise.new(school:, option:, best:, same: best&.removal == @bench.best&.removal)
        end

        def change(key, option)
          return { stance: option } if key == "herbicide"

          { schools: (@facts.schools || School.defaults).merge(key.to_sym => option) }
        end

        def figures(verdict)
          verdict && [verdict.removal.key, verdict.kind, verdict.until, verdict.hours_to_quiet, verdict.years_to_quiet]
        end
      end
    end
  end
end
