# frozen_string_literal: true

require "highs"

module Thistle
  module Core
    # A mixed-integer programme, put together a column and a row at a time and solved by HiGHS: the most worth that
    # keeps every row. A column is a number that may be chosen; a row bounds a sum of columns.
    class Programme
      FREE = 1e30
      LEAST = 0.2 # s that HiGHS is given at least
      # values: of each column; worth: of the answer; proved: is nothing better possible? slopes, of a relaxed one: what
      # one more of each column would add.
      Answer = Value.define(:values, :worth, :proved, :slopes)

      def initialize
        @columns, @entries, @rows = [], [], []
      end

      def empty? = @columns.empty?

      # A new column; answers its number. whole: an integer.
      def column(worth: 0.0, least: 0.0, most: 1.0, whole: true)
        @columns << { worth:, least:, most:, whole: }
        @entries << []
        @columns.size - 1
      end

      # low ≤ Σ amount × column ≤ high, of {column => amount}; answers its number. A row of nothing is one that columns
      # may still be put into.
      def row(amounts = {}, low: -FREE, high: FREE)
        @rows << [low, high]
        amounts.each { |at, amount| put(at, @rows.size - 1, amount) }
        @rows.size - 1
      end

      # So much of a column counts in a row.
      def put(at, row, amount)
        @entries[at] << [row, amount.to_f] unless amount.zero?
      end

      # A column that is settled.
      def hold(at, value) = @columns[at].merge!(least: value.to_f, most: value.to_f)

      # The Answer when columns may be split at will; nil when nothing is possible.
      def relaxed
        answer = Highs.lp(**form).solve
        return unless answer[:status] == :optimal

        Answer.new(values: answer[:col_value], worth: answer[:obj_value], slopes: answer[:col_dual])
      end

      # The best Answer within the time, nearer to the best than `gap`; nil when none was found.
      def solve(seconds:, gap: nil)
        model = Highs.mip(**form, integrality: @columns.map { |one| one[:whole] ? :integer : :continuous })
        Highs::FFI.Highs_setDoubleOptionValue(model.to_ptr, +"mip_rel_gap", gap) if gap
        answer = model.solve(time_limit: [seconds, LEAST].max)
        return unless answer[:obj_value].finite? && %i[optimal time_limit].include?(answer[:status])

        Answer.new(values: answer[:col_value], worth: answer[:obj_value], proved: answer[:status] == :optimal)
      end

      private

      def form
        start, index, value = [], [], []
        @entries.each do |entries|
          start << index.size
          entries.each do |row, amount|
            index << row
            value << amount
          end
        end
        { sense: :maximize, **bounds, a_format: :colwise, a_start: start, a_index: index, a_value: value }
      end

      def bounds
        { col_cost: @columns.map { |one| one[:worth].to_f }, col_lower: @columns.map { |one| one[:least].to_f },
          col_upper: @columns.map { |one| one[:most].to_f }, row_lower: @rows.map { |one| one[0].to_f },
          row_upper: @rows.map { |one| one[1].to_f } }
      end
    end
  end
end
