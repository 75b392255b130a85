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
        LONG, BLOCK, LUNCH, BREAK = 4.0, 1.0, 0.5, 0.25 # hours (common practice); a break after every second block

        # Blocks between breaks of a day from one hour to another, while there is light; none where there is none.
        def self.blocks(from, to, sunrise, sunset)
          from, to = [from, sunrise].compact.max, [to, sunset].compact.min
          hours = to - from
          return [] unless hours >= 0.5

          count = hours.round.clamp(1, 14)
          rests = rests(count, hours)
          each = (hours - rests.sum) / count
          [*rests, 0].reduce([[], from]) { |(found, at), rest| [[*found, [at, at + each]], at + each + rest] }.first
        end

        # Hours of rest after each block but the last; on a long day one of them is lunch.
        def self.rests(count, hours)
          rests = Array.new(count - 1) { |n| n.odd? ? BREAK : 0.0 }
          rests[rests.size / 2] = LUNCH if hours > LONG
          rests
        end
        private_class_method :rests
      end
    end
  end
end
