# frozen_string_literal: true

require "test_helper"

module Thistle
  # Pieces of work in processes of their own: in order, and nothing is left when one fails or nobody asks on.
  class CoreBesideTest < Minitest::Test
    def map(list, &) = Core::Helpers.map(list, &)
    def children = File.read("/proc/#{Process.pid}/task/#{Process.pid}/children").split

    def test_answers_come_in_order_from_other_processes
      answers = map((1..7).to_a) { |n| [n * n, Process.pid] }.to_a

      assert_equal [1, 4, 9, 16, 25, 36, 49], answers.map(&:first)
      assert_equal 2, answers.map(&:last).uniq.size
      refute_includes answers.map(&:last), Process.pid
      assert_empty map([]) { |n| n }.to_a
      assert_equal "x" * 9_000_000, map([1]) { "x" * 9_000_000 }.first, "longer than a pipe holds"
    end

    def test_what_fails_is_said_and_leaves_no_process
      before = children
      { "RuntimeError: no" => ->(n) { n == 3 ? raise("no") : n },
        "its process ended" => ->(n) { n == 3 ? Process.kill(:KILL, Process.pid) && sleep : n } }.each do |words, work|
        told = []
        said = assert_raises(Core::Helpers::Broken) { map((1..9).to_a, &work).each { |n| told << n } }.message

        assert_equal [words, [1, 2]], [said, told]
      end
      map((1..99).to_a) { |n| n }.first(2)

      assert_equal before, children
    end

    def test_a_shape_is_the_same_on_the_other_side
      shape = Core::Survey::Shape.parse(%({"type": "LineString", "coordinates": [[1, 2], [1.01, 2]]}))
      again = map([0]) { shape }.first

      assert_equal [shape.geometry, shape.bounds, shape.length], [again.geometry, again.bounds, again.length]
      assert_predicate again, :frozen?
    end
  end
end
