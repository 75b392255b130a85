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

        # One piece of work in a block: plant and size of its stems, nil where nobody knows.
        Turn = Value.define(:removal, :people, :block, :plant, :size) do
          def tools(kit) = Tools.keys(removal, plant:, size:, kit:)
        end

        # turns: [Turn]; have: {key => number at hand}; seed: is anything in fruit or seed? water_l: litres to drink in
        # all, nil where nobody counts them.
        def initialize(turns, have: {}, seed: false, water_l: nil, knowledge: Knowledge.shipped)
          @turns, @have, @seed, @water, @knowledge = turns, have, seed, water_l, knowledge
        end

        # [Row] of tools, in the order of kit.yml.
        def tools
          kit.filter_map do |key, told|
            needed = most(key, told["share"])
            have = @have[key] || @have[Tools.family(key, kit)]
            Row.new(key:, text: told["text"], needed:, have:) if needed.positive?
          end
        end

        # [words] of what goes along; a volume stands in them as {volume:24000}.
        def along
          when_true = { "herbicide" => removals.any?(&:herbicide?), "seed" => @seed, "saw" => sawing?,
                        "cut" => removals.any? { |one| one.is?(:cutting, :felling, :topping) } }
          along = @knowledge.crew["along"].select { |one| one["when"].nil? || when_true[one["when"]] }
          drink = @water ? ["drinking water, {volume:#{(@water * 1000).round}} in all"] : []
          drink + along.map { |one| one["text"] }
        end

        private

        def kit = @knowledge.kit
        def removals = @turns.map(&:removal).uniq
        def sawing? = @turns.any? { |turn| turn.tools(kit).include?("helmet") }

        # Of the blocks, the one that asks for most.
        def most(key, share)
          @turns.group_by(&:block).values.map do |here|
            here.sum { |turn| turn.tools(kit).include?(key) ? (turn.people / share.to_f).ceil : 0 }
          end.max || 0
        end
      end
    end
  end
end
