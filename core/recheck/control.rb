# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # What a check says of the treatment before it: the share of treated stems that is dead, with Wilson's
      # interval (95 %); mean: under a uniform Beta prior; `percent` is the plain share counted. Where untreated stems
      # beside were counted too, `corrected` is what the treatment did and the season did not (Abbott): {percent,
      # low, high}.
      class Control
        Answer = Value.define(:treated, :alive, :percent, :low, :high, :mean, :corrected, :working)

        # The Control of counts of stems; nil where none was treated. Raises BadInput (field :resprouts or
        # :untreated_alive) for counts that cannot be.
        def self.of(treated:, alive:, untreated: nil, untreated_alive: nil)
          check(treated, alive, :resprouts, "treated: count missed stems apart")
          return if treated.zero?

          dead = treated - alive
          beta = Beta.new(1 + dead, 1 + alive)
          low, high = Interval.wilson(dead, treated).map { |share| 100 * share }
          corrected = abbott(treated, alive, untreated, untreated_alive)
          told = corrected ? [beside(corrected, treated, alive, untreated, untreated_alive)] : []
          Answer.new(treated:, alive:, percent: 100.0 * dead / treated, low:, high:, mean: 100 * beta.mean, corrected:,
                     working: working(treated, dead, alive) + told)
        end

        class << self
          private

          def check(all, alive, field, what)
            raise BadInput.new("Counts are 0 or more.", field:) if alive.negative? || all.negative?
            raise BadInput.new("#{alive} alive of #{all} #{what}.", field:) if alive > all
          end

          # 100 × (1 − treated ÷ untreated), each the share alive, with the range of the logarithm of a ratio of two
          # shares; nil where nothing beside lives, so that nothing can be said.
          def abbott(treated, alive, untreated, untreated_alive)
            return unless untreated&.positive? && untreated_alive

            check(untreated, untreated_alive, :untreated_alive, "untreated")
            return if untreated_alive.zero?

            share, beside = alive.fdiv(treated), untreated_alive.fdiv(untreated)
            percent = 100 * (1 - (share / beside))
            ratio = Math.log((alive + 0.5) / (treated + 0.5)) - Math.log((untreated_alive + 0.5) / (untreated + 0.5))
            spread = Math.sqrt([(1 / (alive + 0.5)) - (1 / (treated + 0.5)) + (1 / (untreated_alive + 0.5)) -
                                (1 / (untreated + 0.5)), 0].max)
            low, high = [Interval::Z, -Interval::Z].map { |tail| 100 * (1 - Math.exp(ratio + (tail * spread))) }
            { percent:, low: [low, percent].min, high: [high, percent].max }
          end

          def working(treated, dead, alive)
            [Step.new(label: "Counted dead", formula: "(#{treated} − #{alive}) ÷ #{treated}",
                      value: "#{(100.0 * dead / treated).round(1)} %", source: "common_practice"),
             Step.new(label: "Range, #{Interval::LABEL}", formula: "#{dead} of #{treated}",
                      value: Interval.wilson(dead, treated).map { |share| "#{(100 * share).round(1)} %" }.join(" to "),
                      source: Interval::SOURCE)]
          end

          def beside(corrected, treated, alive, untreated, untreated_alive)
            Step.new(label: "Against untreated ground",
                     formula: "1 − (#{alive} ÷ #{treated}) ÷ (#{untreated_alive} ÷ #{untreated})",
                     value: "#{corrected[:percent].round(1)} %", source: "abbott_1925")
          end
        end
      end
    end
  end
end
