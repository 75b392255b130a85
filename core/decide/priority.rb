# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # Which patch first: a score in the open. Each part is 0 to 1 with the words that say why; the steward's weights
      # make one number of them.
      #
      #   Priority.new(candidates, weights).rows  # => [Row], highest first
      class Priority
        # What a patch is ranked by. facts: its Facts; today; verdict: its best move; seed_on: the next ripe seed or
        # nil; nearest_m: to the next patch of the same plant, nil for none near; share: of that plant's ground here;
        # place: Place; started: was it treated before? left: stems counted at the last check, or nil.
        Candidate = Value.define(:id, :code, :facts, :today, :verdict, :seed_on, :nearest_m, :share, :place, :started,
                                 :left)
        # What its place says (Store::Surroundings): way: the nearest way of spread {label, m, spreads}; precious: what
        # of worth is near {label, m}; source_m: to the same plant on other ground; building_m. nil where none is near.
        Place = Value.define(:way, :precious, :source_m, :building_m)
        # A part of a score: 0 to 1, and why.
        Part = Value.define(:key, :value, :text)
        # values: of each part in the order of TERMS.
        Row = Value.define(:candidate, :score, :values) do
          def id = candidate.id

          # With words, which are put together only when they are read.
          def parts
            Priority::TERMS.keys.zip(values).map do |key, value|
              Priority::Part.new(key:, value:, text: Reasons.public_send(key, candidate))
            end
          end
        end

        TERMS = {
          "seed" => "Seed about to fall", "strangling" => "Trees being strangled", "outlier" => "Outlier, not core",
          "spread" => "Near ways of spread", "value" => "Good ground at risk", "size" => "Small enough to finish",
          "finishing" => "Chance of finishing", "cost" => "Little work", "neighbours" => "No source across the fence",
          "fire" => "Carries fire"
        }.freeze
        MOST = 10 # of a weight

        # weights: {part => 0 to 10}; raises BadInput when none is above zero.
        def initialize(candidates, weights)
          @candidates = candidates
          @weights = TERMS.keys.to_h { |key| [key, weights.fetch(key, 0).to_f.clamp(0, MOST)] }
          @each = @weights.values
          @whole = @each.sum
          return if @whole.positive?

          raise BadInput.new("Every weight is zero: give at least one part some weight.", field: :weights)
        end

        # [Row], the first to do first; equals by their ids.
        def rows
          @rows ||= @candidates.map { |candidate| row(candidate) }.sort_by { |row| [-row.score, row.id] }.freeze
        end

        private

        def row(candidate)
          values = Parts.of(candidate)
          score = 0.0
          values.each_with_index { |value, n| score += value * @each[n] }
          Row.new(candidate:, values:, score: score / @whole)
        end
      end
    end
  end
end
