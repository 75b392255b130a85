# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # Where mapped seedlings come from: seed in the ground of the old patch, or seed that rains on it from plants
      # around (Bayes, with how far seed goes as the likelihood). One seedling is weighed by itself; all of them
      # together say how many each source brought.
      class Origin
        # key and label of a source; plants that seed there; spent: share of its seed that is left, 1 for fresh;
        # distances: metres from each seedling to it, in their order.
        Source = Value.define(:key, :label, :plants, :spent, :distances)
        # share: of all seedlings, expected; of: for each seedling the probability of this source.
        Share = Value.define(:source, :share, :of)
        LEAST = 1e-12 # of a source, for a seedling that is far from all of them

        # rain: a SeedRain. Raises BadInput (field :points) for seedlings or sources that are none.
        def initialize(rain, sources)
          count = sources.first&.distances&.size.to_i
          sound = count.positive? && sources.all? { |one| one.distances.size == count && one.plants.positive? }
          raise BadInput.new("Tap at least one seedling.", field: :points) unless sound

          @rain, @sources, @count = rain, sources, count
        end

        # [Share], the source of most first.
        def shares
          weights = @sources.map do |source|
            source.distances.map { |metres| source.plants * source.spent * @rain.density(metres) }
          end
          sums = (0...@count).map { |n| weights.sum { |some| some[n] } }
          found = @sources.zip(weights).map do |source, some|
            of = some.each_with_index.map { |weight, n| sums[n] > LEAST ? weight / sums[n] : 1.0 / @sources.size }
            Share.new(source:, share: of.sum / @count, of:)
          end
          found.sort_by { |answer| -answer.share }
        end

        # Seedlings that no source reaches: a tenth of a metre is nearer to all of them than they are. Places, from 0.
        def far
          (0...@count).select do |n|
            @sources.sum { |one| one.plants * one.spent * @rain.density(one.distances[n]) } <= LEAST
          end
        end
      end
    end
  end
end
