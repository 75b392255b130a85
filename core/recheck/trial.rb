# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # Which of two methods kills more here? Stems are given to one or the other at random; as results come in, the one
      # that looks better gets more of them (Thompson sampling). Each arm's share of dead stems is a Beta from a uniform
      # prior.
      class Trial
        # What was counted of an arm; open: given out and not counted yet.
        Arm = Value.define(:dead, :alive, :open) do
          def counted = dead + alive
          def beta = Beta.new(1 + dead, 1 + alive)
        end
        LEAST, MOST = 2, 500 # stems that may be given out at once; fewer compare nothing
        FIRM = 0.95 # of being better, at which it is settled
        ENOUGH = 8 # stems counted of each before anything is settled (memory)
        ALIKE = 0.02 # of the share dead that may be lost by choosing wrongly, at which they hardly differ (memory)

        STEPS = 400 # of the integral below

        attr_reader :arms

        # arms: two Arms. Raises BadInput (field :arms) for counts that cannot be.
        def initialize(arms)
          sound = arms.size == 2 && arms.all? { |arm| [arm.dead, arm.alive, arm.open].all? { |n| n.to_i >= 0 } }
          raise BadInput.new("A trial compares two arms with counts of 0 or more.", field: :arms) unless sound

          @arms = arms
        end

        # The chance that the first kills a larger share than the second, exactly (Thompson 1933, as a sum).
        def first_better
          @first_better ||= begin
            (a, b), (c, d) = arms.map { |arm| [1 + arm.dead, 1 + arm.alive] }
            (0...a).sum { |i| Math.exp(log_beta(c + i, d + b) - Math.log(b + i) - log_beta(1 + i, b) - log_beta(c, d)) }
                   .clamp(0.0, 1.0)
          end
        end

        # 0 or 1: the arm that looks better.
        def leading = first_better >= 0.5 ? 0 : 1
        def chance = [first_better, 1 - first_better].max

        # :better where one is, :alike where little can be lost by choosing wrongly, nil while it is open.
        def settled
          return if arms.any? { |arm| arm.counted < ENOUGH }
          return :better if chance >= FIRM

          :alike if loss < ALIKE
        end

        # Of the share dead, what the leading arm is expected to lose where the other is better.
        def loss
          ahead, behind = arms.values_at(leading, 1 - leading).map(&:beta)
          points = (0...STEPS).map { |n| (n + 0.5) / STEPS }
          points.sum { |at| (1 - behind.cumulative(at)) * ahead.cumulative(at) } / STEPS
        end

        # An arm (0 or 1) for each of so many stems: the first ones half and half in random order, then each by a draw
        # from what is known. The same seed gives the same. Raises BadInput (field :count).
        def assign(count, seed:)
          unless count.is_a?(Integer) && count.between?(LEAST, MOST)
            raise BadInput.new("Give out #{LEAST} to #{MOST} stems: one alone compares nothing.", field: :count)
          end

          random = Random.new(seed)
          return Array.new(count) { |n| n % 2 }.shuffle(random:) if arms.any? { |arm| arm.counted + arm.open < ENOUGH }

          Array.new(count) { arms.map { |arm| arm.beta.quantile(random.rand) }.then { |a, b| a >= b ? 0 : 1 } }
        end

        private

        def log_beta(a, b) = Math.lgamma(a)[0] + Math.lgamma(b)[0] - Math.lgamma(a + b)[0]
      end
    end
  end
end
