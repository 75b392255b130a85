# frozen_string_literal: true

require "test_helper"

module Thistle
  class DatesTest < Minitest::Test
    SAID = { "day" => ["4 June", "4 Jun", "4 June 2026", "Thursday 4 June", "Thu 4 Jun"],
             "month" => ["June 4", "Jun 4", "June 4, 2026", "Thursday, June 4", "Thu, Jun 4"] }.freeze

    def test_each_order_says_a_day_in_its_own_way
      day = Date.new(2026, 6, 4)
      SAID.each do |first, said|
        Core::Dates.written(first) do
          ways = %i[day short full of_week short_of_week].map { |way| Core::Dates.public_send(way, day) }

          assert_equal said, ways
          assert_equal "seen on #{said[2]}", Core::Units.new.fill("seen on {day:2026-06-04}")
        end
      end
      assert_equal "day", Core::Dates.first
      assert_raises(ArgumentError) { Core::Dates.first = "year" }
    end

    # Two at once, each in its own way: a thread's order is nobody else's.
    def test_threads_write_as_their_own_reader_does
      said = %w[day month].map do |first|
        Thread.new do
          Core::Dates.written(first) { Array.new(50) { Core::Dates.day(Date.new(2026, 6, 4)).tap { sleep 0 } } }
        end
      end

      assert_equal [["4 June"], ["June 4"]], said.map { |thread| thread.value.uniq }
    end
  end
end
