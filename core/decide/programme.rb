# frozen_string_literal: true

require "highs"

module Thistle
  module Core
    module Decide
      # A season's choice as a mixed-integer programme in HiGHS' form. A column is an Option, how many of its parts are
      # done; rows are each patch (done once at most, a held one just once), the hours of each week, the season's litres
      # and cost, and what labels allow on each piece of ground.
      class Programme
        FREE = 1e30
        SLACK = 1e-6

        # taken: {Option => parts} that is done already; pins: [Plan::Wish].
        def initialize(options, limits, patches:, pins: [], taken: {})
          @options, @limits, @patches, @pins, @taken = options, limits, patches, pins, taken
        end

        # [greatest gain, {option => share}] when parts may be split at will; [nil, nil] when nothing is possible.
        def relaxed
          answer = Highs.lp(**form).solve
          answer[:status] == :optimal ? [answer[:obj_value], @options.zip(answer[:col_value]).to_h] : [nil, nil]
        end

        # [{option => parts}, or nil when none was found in time; is nothing better possible?].
        def whole(seconds:, gap:)
          model = Highs.mip(**form, integrality: [:integer] * @options.size)
          Highs::FFI.Highs_setDoubleOptionValue(model.to_ptr, +"mip_rel_gap", gap)
          answer = model.solve(time_limit: [seconds, 0.2].max)
          return [nil, false] unless answer[:obj_value].finite? && %i[optimal time_limit].include?(answer[:status])

          [@options.zip(answer[:col_value].map(&:round)).select { |_, parts| parts.positive? }.to_h,
           answer[:status] == :optimal]
        end

        private

        def form
          { sense: :maximize, col_cost: @options.map(&:gain), col_lower: [0.0] * @options.size,
            col_upper: @options.map { |option| most(option) },
            row_lower: lowers, row_upper: uppers, a_format: :colwise, **columns }
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

        def columns
          start, index, value = [], [], []
          @options.each do |option|
            start << index.size
            entries(option).each do |row, amount|
              index << row
              value << amount
            end
          end
          { a_start: start, a_index: index, a_value: value }
        end

        def entries(option)
          rows = @rows ||= @patches.each_with_index.to_h
          season = @patches.size + @limits.hours.size
          [[rows.fetch(option.patch), 1.0 / option.parts], [@patches.size + option.week, option.hours],
           [season, option.litres],
           [season + 1, option.cost],
           *@limits.caps.of(option).map { |n, amount| [season + 2 + n, amount] }].reject { |_, amount| amount.zero? }
        end
      end
    end
  end
end
