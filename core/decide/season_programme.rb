# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # A season's choice as a Core::Programme. A column is an Option, how many of its parts are done; rows are each
      # patch (done once at most, a held one just once), the hours of each week, the season's litres and cost, and what
      # labels allow on each piece of ground.
      class SeasonProgramme
        FREE = Core::Programme::FREE
        SLACK = 1e-6

        # taken: {Option => parts} that is done already; pins: [Plan::Wish].
        def initialize(options, limits, patches:, pins: [], taken: {})
          @options, @limits, @patches, @pins, @taken = options, limits, patches, pins, taken
        end

        # [greatest gain, {option => share}, {option => what a whole of it would add}] when parts may be split at will;
        # nils when nothing is possible.
        def relaxed
          answer = programme.relaxed or return [nil, nil, nil]
          [answer.worth, @options.zip(answer.values).to_h, @options.zip(answer.slopes).to_h]
        end

        # [{option => parts}, or nil when none was found in time; is nothing better possible?].
        def whole(seconds:, gap:)
          answer = programme.solve(seconds:, gap:)
          return [nil, false] unless answer

          [@options.zip(answer.values.map(&:round)).select { |_, parts| parts.positive? }.to_h, answer.proved]
        end

        private

        def programme
          Core::Programme.new.tap do |made|
            lowers.zip(uppers) { |low, high| made.row(low:, high:) }
            @options.each do |option|
              at = made.column(worth: option.gain, most: most(option))
              entries(option).each { |row, amount| made.put(at, row, amount) }
            end
          end
        end

        # A held patch is done only as its pin says.
        def most(option) = held?(option.patch) && @pins.none? { |pin| pin.of?(option) } ? 0.0 : option.parts.to_f
        def held?(patch) = (@held ||= @pins.to_h { |pin| [pin.patch, true] })[patch]

        def uppers
          @uppers ||= begin
            patches = @patches.map { |patch| 1.0 - used { |one| one.patch == patch ? 1.0 / one.parts : 0.0 } }
            weeks = @limits.hours.each_with_index.map do |hours, week|
              hours - used { |one| one.week == week ? one.hours : 0.0 }
            end
            season = [(@limits.litres || FREE) - used(&:litres), (@limits.cost || FREE) - used(&:cost)]
            [*patches, *weeks, *season, *allowed].map { |most| [most, 0.0].max }
          end
        end

        def allowed
          left = @limits.caps.most.dup
          @taken.each { |option, parts| @limits.caps.of(option).each { |n, amount| left[n] -= amount * parts } }
          left
        end

        def lowers
          uppers.each_with_index.map { |most, row| row < @patches.size && held?(@patches[row]) ? most - SLACK : -FREE }
        end

        def used = @taken.sum { |option, parts| yield(option) * parts }

        def entries(option)
          rows = @rows ||= @patches.each_with_index.to_h
          season = @patches.size + @limits.hours.size
          [[rows.fetch(option.patch), 1.0 / option.parts], [@patches.size + option.week, option.hours],
           [season, option.litres],
           [season + 1, option.cost],
           *@limits.caps.of(option).map { |n, amount| [season + 2 + n, amount] }]
        end
      end
    end
  end
end
