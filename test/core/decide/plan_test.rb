# frozen_string_literal: true

require "test_helper"

module Thistle
  # The season plan against trying everything, and against its own limits.
  class PlanTest < Minitest::Test
    Plan = Core::Decide::Plan
    WEEKS = 3

    # Outside: every plan there is, tried one by one, on up to 12 patches.
    def test_a_small_plan_equals_brute_force
      random = Random.new(4)
      25.times do |n|
        some = options(random, patches: n.zero? ? 12 : random.rand(2..6), methods: n.zero? ? 1 : 2)
        plan = Plan.new(some, limits.with(labels: n.even? ? labels(some, random) : nil))
        answer = plan.solve(seconds: 5)

        assert_in_delta brute_force(plan), answer.gain, 1e-6
        assert_in_delta 0, answer.gap, 1e-9
        assert_operator answer.gain, :>=, answer.greedy_gain - 1e-9
        assert_within answer
      end
    end

    # A large one keeps every limit and pin, is never below the greedy plan, and says how far it may be from the best:
    # with what one solving finds, and with what a search makes of it.
    def test_a_large_plan_cut_short
      season = limits(weeks: 20, hours: 20.0, litres: 30.0, cost: 5000.0)
      { 120 => [], 250 => [Plan::Wish.new(patch: 7), Plan::Wish.new(patch: 200)] }.each do |patches, pins|
        options = options(Random.new(5), patches:, weeks: 20, methods: 3, parts: true)
        answer = Plan.new(options, season, pins:).solve(seconds: 1.5)

        assert_within answer, season
        assert_empty pins.map(&:patch) - answer.items.keys.map(&:patch)
        assert_operator answer.gain, :>=, answer.greedy_gain - 1e-9
        assert_operator answer.bound, :>=, answer.gain
        assert_operator answer.gap, :<, 0.2
      end
    end

    def test_pins_and_bans
      options = options(Random.new(6), patches: 5)
      free = Plan.new(options, limits).solve(seconds: 5)
      worst = options.min_by { |option| option.gain / option.hours }
      held = Plan.new(options, limits, pins: [wish(worst)]).solve(seconds: 5)
      best = free.items.keys.first
      without = Plan.new(options, limits, bans: [Plan::Wish.new(patch: best.patch)]).solve(seconds: 5)

      assert_includes held.items.keys, worst
      assert_operator held.gain, :<=, free.gain + 1e-9
      refute_includes without.items.keys.map(&:patch), best.patch
    end

    # Which limits clash: hours that two pins cannot share; a window that is not open; money.
    def test_what_cannot_be_is_said
      one, two = %w[a b].map { |patch| option(patch:, week: 0, hours: 8.0, cost: 300.0) }
      tight = Plan::Limits.new(hours: [10.0], litres: nil, cost: nil)

      assert_equal [[:hours, nil]], Plan.new([one, two], tight, pins: [wish(one), wish(two)]).solve(seconds: 3).clashes
      assert_equal [[:cost, nil]], Plan.new([one], tight.with(cost: 100.0), pins: [wish(one)]).solve(seconds: 3).clashes
      assert_equal [[:window, "c"]], Plan.new([one], tight, pins: [Plan::Wish.new(patch: "c")]).solve(seconds: 3)
                                         .clashes
      assert_empty Plan.new([one], tight.with(hours: [0.0])).solve(seconds: 3).items
    end

    # By hand: 10 hours hold one patch of 8; eight hours more hold the second, with all its gain but what fits already:
    # 2 of 8.
    def test_one_more_crew_day
      options = %w[a b].map { |patch| option(patch:, week: 0, hours: 8.0, gain: 40.0) }
      week, gain = Plan.new(options, Plan::Limits.new(hours: [10.0], litres: nil, cost: nil)).one_more(8.0)

      assert_equal 0, week
      assert_in_delta 40 * 6 / 8.0, gain, 1e-6
      assert_nil Plan.new(options, Plan::Limits.new(hours: [40.0], litres: nil, cost: nil)).one_more(8.0)
    end

    private

    def limits(weeks: WEEKS, hours: 12.0, litres: 1.0, cost: 400.0)
      Plan::Limits.new(hours: [hours] * weeks, litres:, cost:)
    end

    def wish(option) = Plan::Wish.new(patch: option.patch, method: option.method, week: option.week)
    def option(**fields) = Plan::Option.new(method: "hand_pull", parts: 1, litres: 0.0, cost: 0.0, gain: 10.0, **fields)

    # Pieces of ground that two patches share, each with less left than both would put there.
    def labels(options, random)
      pieces = options.group_by(&:patch).values.each_cons(2).map do |pair|
        [pair.flatten.to_h { |option| [option, option.litres * 100] }, random.rand(20.0..55.0)]
      end
      Core::Decide::LabelCaps.new(pieces)
    end

    def options(random, patches:, weeks: WEEKS, methods: 2, parts: false)
      (0...patches).flat_map do |patch|
        hours, gain, opens = random.rand(2.0..11.0), random.rand(20.0..100.0), random.rand(0...weeks)
        parts_of = parts ? random.rand(1..3) : 1
        (0...methods).flat_map do |method|
          (opens..[opens + 2, weeks - 1].min).map do |week|
            Plan::Option.new(patch:, method:, week:, parts: parts_of, hours: hours * (1 + (0.2 * method)) / parts_of,
                             litres: method * 0.3, cost: hours * 20 / parts_of,
                             gain: gain * (0.7 + (0.2 * method)) * (1 - (0.01 * week)) / parts_of)
          end
        end
      end
    end

    def brute_force(plan)
      patches = plan.options.group_by(&:patch).values
      search = ->(index, hours, litres, cost, allowed) do
        next 0.0 if index == patches.size

        skipped = search.call(index + 1, hours, litres, cost, allowed)
        done = patches[index].filter_map do |option|
          left = hours.dup.tap { |all| all[option.week] -= option.hours }
          next if left[option.week] < -1e-9 || litres < option.litres - 1e-9 || cost < option.cost - 1e-9

          rest = allowed.dup
          plan.limits.caps.of(option).each { |n, amount| rest[n] -= amount }
          next if rest.any? { |amount| amount < -1e-9 }

          option.gain + search.call(index + 1, left, litres - option.litres, cost - option.cost, rest)
        end
        [skipped, *done].max
      end
      search.call(0, plan.limits.hours, plan.limits.litres, plan.limits.cost, plan.limits.caps.most)
    end

    def assert_within(answer, limits = self.limits)
      by_week = answer.items.group_by { |option, _| option.week }
                      .transform_values { |items| items.sum { |option, parts| option.hours * parts } }

      by_week.each { |week, hours| assert_operator hours, :<=, limits.hours[week] + 1e-5 }
      answer.items.group_by { |option, _| option.patch }.each_value do |items|
        assert_operator items.sum { |option, parts| parts / option.parts.to_f }, :<=, 1 + 1e-5
      end
      assert_operator answer.litres, :<=, limits.litres + 1e-5
      assert_operator answer.cost, :<=, limits.cost + 1e-5
    end
  end
end
