# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # What a mix ought to do, each as a Need: how many kinds at least, what being short of one costs, and which
      # candidates meet it. Penalties are planning values (memory).
      module MixNeeds
        # about: :month, :third, :job, :layer or :roots; what: which of them; meets: of a PlantMix::Candidate.
        Need = Value.define(:about, :what, :least, :penalty, :meets)
        MONTH, THIRD, JOB, LAYER, ROOTS = 12.0, 3.0, 6.0, 2.0, 1.5
        IN_THIRD = 3 # kinds in flower in each third of the season
        LAYERS = %w[floor herb tall].freeze

        module_function

        # [Need] of candidates; months: of the season; kinds: at most.
        def of(candidates, months:, jobs:, kinds:)
          [*monthly(months), *thirds(months, kinds), *working(jobs), *layers(candidates), *roots].freeze
        end

        # The thirds of a season: [[month]].
        def in_thirds(months)
          cuts = [0, (months.size / 3.0).round, (months.size * 2 / 3.0).round, months.size]
          cuts.each_cons(2).map { |from, to| months[from...to] }.reject(&:empty?)
        end

        def monthly(months)
          months.map do |month|
            Need.new(about: :month, what: month, least: 1, penalty: MONTH,
                     meets: ->(one) { one.months.include?(month) })
          end
        end

        # Fewer than three where fewer kinds are wanted than three a third.
        def thirds(months, kinds)
          least = [IN_THIRD, (kinds / 3.0).ceil].min
          in_thirds(months).map do |third|
            Need.new(about: :third, what: third, least:, penalty: THIRD,
                     meets: ->(one) { one.months.intersect?(third) })
          end
        end

        def working(jobs)
          jobs.map do |job|
            Need.new(about: :job, what: job, least: 1, penalty: JOB, meets: ->(one) { one.native.jobs.include?(job) })
          end
        end

        def layers(candidates)
          (candidates.map { |one| one.native.layer }.uniq & LAYERS).map do |layer|
            Need.new(about: :layer, what: layer, least: 1, penalty: LAYER, meets: ->(one) { one.native.layer == layer })
          end
        end

        # Roots that hold the top and roots that go deep.
        def roots
          { "shallow" => ->(one) { one.native.roots["depth_cm"] <= 60 },
            "deep" => ->(one) { one.native.roots["depth_cm"] >= 80 } }.map do |what, meets|
            Need.new(about: :roots, what:, least: 1, penalty: ROOTS, meets:)
          end
        end
        private_class_method :monthly, :thirds, :working, :layers, :roots
      end
    end
  end
end
