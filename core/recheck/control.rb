# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # What a check says of the treatment before it: the share of treated stems that is dead, with a 90 % range.
      # Uniform Beta prior, binomial counts; `percent` is the plain share counted.
      class Control
        Answer = Value.define(:treated, :alive, :percent, :low, :high, :mean, :working)

        # The Control of counts of stems: percent dead with its 95 % interval; nil where none was treated. Raises
        # BadInput (field :resprouts) for counts that cannot be.
        def self.of(treated:, alive:)
          raise BadInput.new("Counts are 0 or more.", field: :resprouts) if alive.negative? || treated.negative?

          if alive > treated
            raise BadInput.new("#{alive} alive of #{treated} treated: count missed stems apart.", field: :resprouts)
          end
          return if treated.zero?

          dead = treated - alive
          beta = Beta.new(1 + dead, 1 + alive)
          low, high = [0.05, 0.95].map { |share| 100 * beta.quantile(share) }
          Answer.new(treated:, alive:, percent: 100.0 * dead / treated, low:, high:, mean: 100 * beta.mean,
                     working: working(treated, dead, alive))
        end

        def self.working(treated, dead, alive)
          [Step.new(label: "Counted dead", formula: "(#{treated} − #{alive}) ÷ #{treated}",
                    value: "#{(100.0 * dead / treated).round(1)} %", source: "common_practice"),
           Step.new(label: "Range, 90 %", formula: "Beta(1 + #{dead}, 1 + #{alive}), 5th to 95th percentile",
                    value: "few counts, wide range", source: "beta_binomial")]
        end
        private_class_method :working
      end
    end
  end
end
