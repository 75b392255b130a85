# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # What is left of each week, of the season, of each patch and of what labels allow while a plan is put together.
      class SeasonRoom
        EPSILON = 1e-6

        attr_reader :items

        # limits: Plan::Limits; items: {Option => parts} that are in it already.
        def initialize(limits, items = {})
          @hours, @litres, @cost = limits.hours.dup, limits.litres || Float::INFINITY, limits.cost || Float::INFINITY
          @left = Hash.new(1.0) # of each patch
          @labels, @allowed = limits.caps, limits.caps.most.dup
          @items = {}
          items.each { |option, parts| parts.times { take(option) } }
        end

        # Is there room for one part more?
        def fits?(option)
          part = 1.0 / option.parts
          within?(part, @left[option.patch]) && within?(option.hours, @hours[option.week]) &&
            within?(option.litres, @litres) && within?(option.cost, @cost) &&
            @labels.of(option).all? { |n, amount| within?(amount, @allowed[n]) }
        end

        # As many parts as fit, up to a number.
        def fill(option, most = option.parts)
          most.times { take(option) if fits?(option) }
        end

        # Is the whole of a patch in it?
        def done?(patch) = @left[patch] < EPSILON

        private

        def within?(takes, left) = takes <= left + EPSILON

        def take(option)
          @left[option.patch] -= 1.0 / option.parts
          @hours[option.week] -= option.hours
          @litres -= option.litres
          @cost -= option.cost
          @labels.of(option).each { |n, amount| @allowed[n] -= amount }
          @items[option] = @items.fetch(option, 0) + 1
        end
      end
    end
  end
end
