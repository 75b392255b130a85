# frozen_string_literal: true

require "test_helper"

module Thistle
  # A day against all days there are, and a walk against all walks.
  class DayPlanTest < Minitest::Test
    Work = Core::Work
    DATE = Date.new(2026, 5, 12)
    LICENSED = Work::Job::Need.new(key: :licensed, text: "a licensed applicator")
    SAW = Work::Job::Need.new(key: %w[sawyer saw], text: "someone trained for the machine")

    # Outside: every way to send three people to three jobs in two blocks, tried one by one.
    def test_a_small_day_equals_brute_force
      random = Random.new(8)
      8.times do
        plan = Work::DayPlan.new(small(random), Array.new(3) { |n| job(n, random) })
        answer = plan.solve(seconds: 5)

        assert_in_delta brute_force(plan), answer.worth, 1e-6
        assert_operator answer.worth, :>=, answer.quick - 1e-9
        assert_allowed plan, answer.turns
      end
    end

    # Fifteen people and forty jobs: every rule is kept, and the quick plan is never better.
    def test_a_large_day
      random = Random.new(3)
      blocks = Work::Day.blocks(9.0, 15.0, 5.5, 20.0)
      day = Work::Day.new(date: DATE, blocks:, people: crowd, tools: { "saw" => 4 })
      plan = Work::DayPlan.new(day, Array.new(40) { |n| job(n, random, hours: 2.0 + (20 * random.rand)) })
      answer = plan.solve(seconds: 1.0)

      assert_allowed plan, answer.turns
      assert_allowed plan, plan.quick
      assert_operator answer.worth, :>=, answer.quick - 1e-9
      banned = answer.turns.map { |turn| turn.job.id }.find { |id| id != 4 }
      pinned = Work::DayPlan.new(day, plan.jobs, pins: { 4 => 0 }, bans: [banned]).solve(seconds: 1.0)

      assert(pinned.turns.any? { |turn| turn.job.id == 4 && turn.block.zero? })
      refute_includes pinned.turns.map { |turn| turn.job.id }, banned
    end

    # A patch that could be done in two ways is done in one; small jobs near each other are one round.
    def test_two_ways_and_rounds
      plain = { score: 1.0, least: 2, most: 4, needs: [], cannot: [], tools: {}, fit: [[8, 16]], walk_h: 0.0 }
      pull = Work::Job.new(id: 1, method: "pull", hours: 2.0, at: [0, 0], **plain)
      ways = [pull, pull.with(method: "cut", hours: 3.0)]
      day = Work::Day.new(date: DATE, blocks: [[9.0, 11.0]], people: crowd, tools: {})
      [Work::DayPlan.new(day, ways).solve.turns, Work::DayPlan.new(day, ways).quick].each do |turns|
        assert_equal ["pull"], turns.map { |turn| turn.job.method }
      end
      small = [[0, 0], [100, 0], [150, 0], [900, 0]].each_with_index.map do |at, n|
        Work::Job.new(id: n, method: "pull", hours: 0.5, at:, **plain)
      end

      assert_equal [[0, 1], [2], [3]], Work::Rounds.new(small).jobs.map { |job| Array(job.id) }.sort
      assert_equal 4, Work::Rounds.new(small, alone: [1, 2]).jobs.size
      assert_in_delta 1.0, Work::Rounds.new(small).jobs.first.hours
    end

    # What keeps a job out is said: nobody licensed that day, too few who may, hours that are not fit, no tool.
    def test_what_will_not_fit_is_said
      plain = { id: 1, method: "x", hours: 4.0, score: 1.0, least: 2, most: 4, needs: [], cannot: [], tools: {},
                fit: [[8, 16]], walk_h: 0.0 }
      late = Work::Person.new(id: 1, roles: ["applicator"], licensed_until: DATE - 1)
      people = [late, Work::Person.new(id: 2, cannot: ["thorns"])]
      day = Work::Day.new(date: DATE, blocks: [[9.0, 11.0]], people:, tools: { "saw" => 0 })
      { { needs: [LICENSED] } => /needs a licensed applicator/, { cannot: ["thorns"] } => /2 people at once/,
        { fit: [[12, 14]] } => /hours are not fit/, { tools: { "saw" => 1 } } => /no loppers/ }.each do |more, words|
        one = Work::Job.new(**plain, **more)
        plan = Work::DayPlan.new(day, [one])

        assert_match words, plan.against(one)
        assert_empty plan.solve.turns
      end
      assert_empty Work::DayPlan.new(day.with(people: []), [Work::Job.new(**plain)]).solve.turns
      assert_empty Work::Day.blocks(9.0, 15.0, 14.8, 20.0)
      assert_equal [[9.0, 10.0], [10.0, 11.0], [11.25, 12.25]], Work::Day.blocks(9.0, 12.25, 5.5, 20.0)
      long = Work::Day.blocks(8.0, 15.0, 9.0, 14.5)

      assert_equal [9.0, 0.5], [long.first.first, long.each_cons(2).map { |a, b| (b.first - a.last).round(3) }.max]
      assert_in_delta 14.5, long.last.last
    end

    # A pin that cannot be met is let go, said, and keeps nothing else from being planned.
    def test_a_pin_that_cannot_be
      plain = { method: "x", hours: 2.0, score: 1.0, least: 2, most: 4, needs: [], cannot: [], tools: {}, walk_h: 0.0 }
      jobs = [Work::Job.new(id: 1, fit: [[8, 10]], **plain), Work::Job.new(id: 2, fit: [[8, 16]], **plain)]
      day = Work::Day.new(date: DATE, blocks: [[8.0, 10.0], [10.5, 12.0]], people: crowd.first(4), tools: {})
      plan = Work::DayPlan.new(day, jobs, pins: { 1 => 1, 2 => 1, 9 => nil })
      turns = plan.solve.turns

      assert_equal({ 1 => "the weather is not right at that time", 9 => "no method is right for it that day" },
                   plan.unmet(turns))
      assert_includes turns.map { |turn| [turn.job.id, turn.block] }, [2, 1]
      assert_includes turns.map { |turn| turn.job.id }, 1
    end

    # By hand: a pair works 2 h on 6 person-hours; two more finish it.
    def test_what_one_more_pair_would_finish
      pair = Array.new(2) { |n| Work::Person.new(id: n, roles: ["volunteer"]) }
      one = Work::Job.new(id: 1, method: "x", hours: 6.0, score: 1.0, least: 2, most: 4, needs: [], cannot: [],
                          tools: {}, fit: [[8, 16]], walk_h: 0.0)
      plan = Work::DayPlan.new(Work::Day.new(date: DATE, blocks: [[9.0, 11.0]], people: pair, tools: {}), [one])

      assert_in_delta 4 / 6.0, plan.solve.done[one]
      assert_equal [one], plan.one_more_pair
    end

    # Outside: every order of up to seven places; those in seed after the rest.
    def test_a_short_walk_equals_brute_force
      random = Random.new(2)
      10.times do
        places = scattered(random.rand(1..7), random, late: 0.4)
        walk = Work::Walk.new([0, 0], places)

        assert_in_delta shortest(places), walk.metres, 1e-6
        assert_equal walk.order.sort_by { |one| one.late ? 1 : 0 }.map(&:late), walk.order.map(&:late)
      end
    end

    # Outside: the bound of Held and Karp (1970) by 1-trees, below which no round can be.
    def test_a_long_walk_is_within_five_percent_of_a_bound
      random = Random.new(6)
      places = scattered(40, random)
      walk = Work::Walk.new([500, 500], places)
      bound = lower_bound([[500, 500], *places.map(&:at)])

      assert_operator walk.metres, :>=, bound - 1e-6
      assert_operator walk.metres / bound, :<, 1.05
      late = Work::Walk.new([500, 500], scattered(40, random, late: 0.5)).order.map(&:late)

      assert_equal late.sort_by { |one| one ? 1 : 0 }, late
    end

    # By hand: two blocks alike, seed in the first and clean ground in the second: they change places. Held there, they
    # stay, and it is said; the stops of a block follow the way on.
    def test_the_day_is_worked_in_the_order_of_the_walk
      plain = { method: "x", hours: 2.0, score: 1.0, least: 1, most: 2, needs: [], cannot: [], tools: {},
                fit: [[0, 24]], walk_h: 0.0 }
      people = [Work::Person.new(id: 1, name: "Ines", roles: ["volunteer"])]
      day = Work::Day.new(date: DATE, blocks: [[8, 10], [10, 12]], people:, tools: {})
      seed, clean = Work::Job.new(id: 1, late: true, **plain), Work::Job.new(id: 2, **plain)
      near = Work::Job.new(id: 3, **plain)
      plan = Work::DayPlan.new(day, [seed, clean, near])
      who = people
      turns = [[seed, 0], [clean, 1], [near, 1]].map { |job, block| Work::DayPlan::Turn.new(job:, block:, people: who) }
      at = { 1 => [10, 0], 2 => [100, 0], 3 => [30, 0] }
      free = Work::InOrder.new(plan, turns, at:)
      held = Work::InOrder.new(plan, turns, pins: { 1 => 0 }, at:)

      assert_equal [3, 2, 1], free.stops.map(&:id)
      assert_empty free.out
      assert_equal [[1, 3, 2], [[1, "it is held there"]]],
                   [held.stops.map(&:id), held.out.map { |one| [one.job.id, one.why] }]
      assert_in_delta 200, free.metres
    end

    private

    def job(number, random, hours: 1.0 + (4 * random.rand))
      Work::Job.new(id: number, method: "x", hours:, score: 0.2 + random.rand, least: 1 + (number % 2), most: 3,
                    needs: [[], [LICENSED], [SAW]].sample(random:), cannot: [[], ["thorns"]].sample(random:),
                    tools: [{}, { "saw" => 2 }].sample(random:), fit: [[9.0, 10.0 + (4 * random.rand)]], walk_h: 0.1,
                    late: random.rand < 0.3)
    end

    def small(random)
      people = [Work::Person.new(id: 1, roles: %w[applicator], licensed_until: DATE),
                Work::Person.new(id: 2, training: %w[saw]),
                Work::Person.new(id: 3, cannot: random.rand < 0.5 ? %w[thorns] : [])]
      Work::Day.new(date: DATE, blocks: [[9.0, 11.0], [11.5, 13.0]], people:, tools: { "saw" => 1 })
    end

    def crowd
      [Work::Person.new(id: 1, roles: %w[crew_lead applicator], licensed_until: DATE + 9),
       Work::Person.new(id: 2, roles: %w[sawyer])] +
        (3..15).map { |n| Work::Person.new(id: n, roles: %w[volunteer], cannot: (n % 5).zero? ? %w[thorns] : []) }
    end

    def brute_force(plan)
      places = [nil, *plan.jobs]
      slots = plan.day.people.product(plan.day.blocks.each_index.to_a)
      places.repeated_permutation(slots.size).filter_map do |chosen|
        turns = turns(slots.zip(chosen))
        plan.worth(turns) if complaints(plan, turns).empty?
      end.max
    end

    def turns(pairs)
      pairs.select(&:last).group_by { |(_, block), job| [job, block] }.map do |(job, block), some|
        Work::DayPlan::Turn.new(job:, block:, people: some.map { |(person, _), _| person })
      end
    end

    def assert_allowed(plan, turns) = assert_empty(complaints(plan, turns))

    # What a plan breaks.
    def complaints(plan, turns)
      day = plan.day
      found = turns.flat_map { |turn| against(plan, turn) }
      turns.group_by(&:block).each_value do |here|
        found << :twice if here.flat_map(&:people).tally.any? { |_, count| count > 1 }
        found << :tools if day.tools.any? do |key, count|
          here.sum { |turn| turn.job.tools.key?(key) ? (turn.people.size / turn.job.tools[key].to_f).ceil : 0 } > count
        end
      end
      found
    end

    def against(plan, turn)
      job, people = turn.job, turn.people
      [(:people unless people.size.between?(job.least, job.most)),
       (:cannot unless people.all? { |one| job.takes?(one) }),
       (:need unless job.needs.all? { |need| people.any? { |one| need.met?(one, plan.day.date) } }),
       (:hours unless plan.worked(job, turn.block).positive?)].compact
    end

    def scattered(count, random, late: 0)
      Array.new(count) do |n|
        Work::Walk::Place.new(id: n, at: [random.rand * 1000, random.rand * 1000], late: random.rand < late)
      end
    end

    def shortest(places)
      places.permutation.select { |path| path.map { |one| one.late ? 1 : 0 }.each_cons(2).all? { |a, b| a <= b } }
            .map { |path| metres([[0, 0], *path.map(&:at), [0, 0]]) }.min
    end

    def metres(points) = points.each_cons(2).sum { |a, b| Math.hypot(a[0] - b[0], a[1] - b[1]) }

    # The best of 1-trees under prices that draw every place towards two neighbours.
    def lower_bound(points)
      apart = points.map { |a| points.map { |b| Math.hypot(a[0] - b[0], a[1] - b[1]) } }
      prices = [0.0] * points.size
      step = 60.0
      Array.new(300) do
        length, degrees = one_tree(apart, prices)
        degrees.each_with_index { |degree, n| prices[n] += step * (degree - 2) }
        step *= 0.98
        length
      end.max
    end

    def one_tree(apart, prices)
      cost = ->(a, b) { apart[a][b] + prices[a] + prices[b] }
      degrees, length = [0] * prices.size, 0.0
      join = ->(a, b) { length += cost[a, b]; degrees[a] += 1; degrees[b] += 1 } # rubocop:disable Style/Semicolon
      near = (2...prices.size).to_h { |n| [n, 1] }
      until near.empty?
        n, to = near.min_by { |one, other| cost[one, other] }
        near.delete(n)
        join[n, to]
        near.each_key { |one| near[one] = n if cost[one, n] < cost[one, near[one]] }
      end
      (1...prices.size).min_by(2) { |n| cost[0, n] }.each { |n| join[0, n] }
      [length - (2 * prices.sum), degrees]
    end
  end
end
