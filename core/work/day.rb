# frozen_string_literal: true

module Thistle
  module Core
    module Work
      # A work day: who comes, when there is light, what is at hand. blocks: [[from, to]] hours on the clock between
      # breaks; tools: {key of kit.yml => how many}, those that were counted.
      Day = Value.define(:date, :blocks, :people, :tools) do
        # What somebody may be asked to do, by kinds of people alike: {kind => [Person]}.
        def kinds = people.group_by { |person| person.kind(date) }
      end

      # How a day is parted.
      class Day
        LONG, BLOCK, LUNCH, BREAK = 4.0, 2.0, 0.5, 0.25 # hours (common practice)

        # Blocks between breaks of a day from one hour to another, while there is light; none where there is none.
        def self.blocks(from, to, sunrise, sunset)
          from, to = [from, sunrise].compact.max, [to, sunset].compact.min
          hours = to - from
          return [] unless hours >= 0.5

          count = (hours / BLOCK).ceil
          rests = Array.new(count - 1, BREAK)
          rests[rests.size / 2] = LUNCH if hours > LONG
          each = (hours - rests.sum) / count
          rests << 0
          rests.reduce([[], from]) { |(found, at), rest| [[*found, [at, at + each]], at + each + rest] }.first
        end
      end
    end
  end
end
