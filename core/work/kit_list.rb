# frozen_string_literal: true

module Thistle
  module Core
    module Work
      # What a day's crew carries: tools by who works at the same time, and what goes along on every day.
      class KitList
        # key: of kit.yml, nil for what goes along; needed, have: how many, nil where nobody counted.
        Row = Value.define(:key, :text, :needed, :have) do
          def short = have && needed ? [needed - have, 0].max : 0
        end

        # turns: [[Removal, people, block]]; have: {key => number at hand}; seed: is anything in fruit or seed?
        # sizes: of the stems that are worked on.
        def initialize(turns, have: {}, seed: false, sizes: [], knowledge: Knowledge.shipped)
          @turns, @have, @seed, @sizes, @knowledge = turns, have, seed, sizes.compact, knowledge
        end

        # [Row] of tools, in the order of kit.yml.
        def tools
          @knowledge.kit.filter_map do |key, told|
            needed = most(key, told["share"])
            Row.new(key:, text: told["text"], needed:, have: @have[key]) if needed.positive?
          end
        end

        # [words] of what goes along.
        def along
          when_true = { "herbicide" => removals.any?(&:herbicide?), "seed" => @seed,
                        "cut" => removals.any? { |one| one.is?(:cutting, :felling, :topping) } }
          along = @knowledge.crew["along"].select { |one| one["when"].nil? || when_true[one["when"]] }
          along.map { |one| one["text"] } + cutters
        end

        # What cuts the stems that stand there, the thinnest first.
        def cutters
          return [] unless removals.any? { |one| one.is?(:cutting, :felling, :topping, :girdling, :freeing) }

          @knowledge.crew["cutters"].slice(*@sizes).values.uniq
        end

        private

        def removals = @turns.map(&:first).uniq

        # Of the blocks, the one that asks for most.
        def most(key, share)
          @turns.group_by(&:last).values.map do |here|
            here.sum { |removal, people, _| removal.kit.include?(key) ? (people / share.to_f).ceil : 0 }
          end.max || 0
        end
      end
    end
  end
end
