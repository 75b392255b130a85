# frozen_string_literal: true

module Thistle
  module Web
    module Decide
      # Patches in the order of the steward's weights. The address holds the weights; where it has none, those that are
      # kept.
      class RankingDesk
        SHOWN = 60
        GOALS = Core::Knowledge.shipped.goals

        attr_reader :weights, :error, :rows

        def initialize(params, property, today)
          @property = property
          @goal = GOALS[params["goal"].to_s]
          @weights = read(params["w"]) || @goal&.weights || property.rank_weights
          @ranking = Store::Ranking.new(property, today, kept: Core::Kept::MOVES)
          @rows = Core::Decide::Priority.new(@ranking.candidates, @weights).rows
          @ranking.read(@rows.first(SHOWN).map(&:id))
        rescue Core::BadInput => e
          @error = e.message
          @rows = []
        end

        # The goal whose weights these are, if any.
        def goal
          terms = Core::Decide::Priority::TERMS.keys
          same = ->(goal) { terms.all? { |key| goal.weights.fetch(key, 0) == @weights.fetch(key, 0).to_i } }
          GOALS.find { |_, goal| same[goal] }&.first
        end

        def patch(id) = @ranking.patch(id)

        # Each part's share of a row's score, for the drawn bar: [[key, x, width]], 0 to 100 for all weights together.
        def stack(row)
          whole = @weights.values.sum.to_f
          x = 0.0
          Core::Decide::Priority::TERMS.keys.zip(row.values).filter_map do |key, value|
            width = 100 * @weights.fetch(key, 0) * value / whole
            [key, x.round(2), width.round(2)].tap { x += width } if width >= 0.3
          end
        end

        # The strongest parts of a row that say something of it, in words.
        def why(row, count = 3)
          telling = row.parts.select { |part| part.value.positive? && !(part.key == "neighbours" && part.value >= 1) }
          telling.sort_by { |part| -(part.value * @weights.fetch(part.key, 0)) }.first(count)
        end

        private

        def read(given)
          return unless given.is_a?(Hash)

          Core::Decide::Priority::TERMS.keys.to_h do |key|
            [key, given[key].to_s.to_f.clamp(0, Core::Decide::Priority::MOST)]
          end
        end
      end
    end
  end
end
