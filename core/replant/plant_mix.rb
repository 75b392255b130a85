# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # What goes in together, as an integer programme (Core::Programme): which natives, and which share of the ground
      # each has, so that something is in flower all season, jobs are done, layers and roots are filled, and no share
      # that was stated is broken. What cannot be had is said as a gap.
      class PlantMix
        PARTS = 40 # of the ground: a share is so many fortieths
        # native; score (Palette); months of bloom here; cost of covering a square metre with it, nil where no price
        # is known; per_m2: plants on a square metre that is all its own, nil for what is sown.
        Candidate = Value.define(:native, :score, :months, :cost, :per_m2)
        # kinds: at most; grass: [least, most] share of grasses and sedges, or nil; most: share of one; budget: for all,
        # or nil; locks, bans: keys of natives.
        Wish = Value.define(:kinds, :grass, :most, :budget, :locks, :bans)
        Item = Value.define(:native, :parts, :cost) { def share = parts.fdiv(PARTS) }
        # about: :month, :third, :job, :layer, :roots or :grass; what: which; short: by how many kinds; possible: does
        # anything of the list do it?
        Gap = Value.define(:about, :what, :short, :possible)
        # items by share; gaps; proved: is nothing better possible?; impossible: why there is no mix at all, else nil.
        Answer = Value.define(:items, :gaps, :worth, :cost, :proved, :impossible) do
          def keys = items.map { |item| item.native.key }
        end
        Offer = Value.define(:native, :closes, :out)

        KIND = 0.35 # worth of one kind more (memory)
        FURTHER = 0.4 # worth of a share beyond the usual one (memory)
        # The usual share of a kind, times an even one, by what it is for (memory): much of what closes the ground,
        # little of what stands tall or fills in.
        USUAL = { "matrix" => 2.0, "season" => 0.75, "structure" => 0.5, "filler" => 0.5 }.freeze
        LIKELY = 60 # candidates that are tried, best first
        SECONDS = 1.5
        MOST_KINDS = 40
        SLACK = 0.05 # of worth, below which one kind more buys nothing
        LITTLE = 0.05 # score that counts at least, so that what suits badly is still better than bare ground
        LEAST_PLANTS, LEAST_APART = 3, 5 # of a kind; of one whose sexes stand apart

        # candidates: [Candidate]; months: of the season, in their order; jobs: wanted; m2: of the ground. Raises
        # BadInput (field :area, :kinds, :most, :grass or :budget).
        def initialize(candidates, wish, months:, jobs:, m2:)
          check(wish, m2)
          @wish, @months, @jobs, @m2 = wish, months, jobs, m2
          @candidates = likely(candidates.reject { |one| wish.bans.include?(one.native.key) || crowded?(one) })
        end

        # The Answer.
        def answer = @answer ||= refused || solved || Answer.new(items: [], gaps: [], impossible: why_not)

        # What one kind more would buy, an Offer; nil when it buys nothing.
        def one_more
          return if answer.impossible || @wish.kinds >= MOST_KINDS

          more = PlantMix.new(@candidates, @wish.with(kinds: @wish.kinds + 1), months: @months, jobs: @jobs,
m2: @m2).answer
          new = more.items.map(&:native) - answer.items.map(&:native)
          return if new.empty? || more.worth <= answer.worth + SLACK

          Offer.new(native: new.first, closes: answer.gaps - more.gaps, out: answer.keys - more.keys)
        end

        private

        def check(wish, m2)
          { area: m2.positive?, kinds: wish.kinds.between?(1, MOST_KINDS), most: wish.most.between?(0.025, 1),
            grass: wish.grass.nil? || (wish.grass == wish.grass.sort && wish.grass.all? { |one| one.between?(0, 1) }),
            budget: wish.budget.nil? || wish.budget.positive? }.each do |field, right|
            raise BadInput.new(WRONG.fetch(field), field:) unless right
          end
          return if wish.kinds * (wish.most * PARTS).floor >= PARTS

          raise BadInput.new("#{wish.kinds} kinds of at most #{(wish.most * 100).round} % do not fill the ground.",
                             field: :most)
        end
        WRONG = { area: "The area is above 0.", kinds: "Kinds are 1 to 40.", most: "The most of one is 2.5 to 100 %.",
                  grass: "Grass is from 0 to 100 %, the least first.", budget: "The budget is above 0." }.freeze
        private_constant :WRONG

        # Too few plants of it would stand there for it to be more than an ornament.
        def crowded?(one) = least_parts(one) > most_parts

        def least_parts(one)
          half = (usual(one) / 2.0).ceil
          return half unless one.per_m2

          least = one.native.sexes_apart? ? LEAST_APART : LEAST_PLANTS
          [(least / (one.per_m2 * @m2 / PARTS)).ceil, half].max
        end

        # The share that counts in full: an even one, more or less by what it is for; among shrubs all are alike.
        def usual(one)
          times = one.native.woody? ? 1.0 : USUAL.fetch(one.native.role)
          (PARTS * times / @wish.kinds).ceil.clamp(1, most_parts)
        end

        def most_parts = @most_parts ||= (@wish.most * PARTS).floor

        # The best ones, what is locked, and what few others do.
        def likely(all)
          best = all.max_by(LIKELY) { |one| [one.score, one.native.key] }
          rare = @months.flat_map do |month|
            all.select { |one| one.months.include?(month) }.max_by(4, &:score)
          end
          best | all.select { |one| @wish.locks.include?(one.native.key) } | rare
        end

        def refused
          lost = @wish.locks - @candidates.map { |one| one.native.key }
          return Answer.new(items: [], gaps: [], impossible: :lock_lost) if lost.any?
          return Answer.new(items: [], gaps: [], impossible: :nothing_fits) if @candidates.empty?

          Answer.new(items: [], gaps: [], impossible: :locks) if @wish.locks.size > @wish.kinds
        end

        def solved(wish = @wish)
          lay_out(wish)
          found = @programme.solve(seconds: SECONDS, gap: 0.0)
          found && read(found)
        end

        # Why no mix keeps what was stated: without which of it would there be one?
        def why_not
          return :budget if @wish.budget && solved(@wish.with(budget: nil))
          return :grass if @wish.grass && solved(@wish.with(grass: nil))

          :share
        end

        def lay_out(wish)
          @programme = Programme.new
          @taken = @candidates.to_h { |one| [one, @programme.column(worth: KIND, least: locked?(one, wish) ? 1 : 0)] }
          @share = @candidates.to_h { |one| [one, shares(one)] }
          @programme.row(of_share(@candidates) { 1 }, low: PARTS, high: PARTS)
          @programme.row(@taken.values.to_h { |at| [at, 1] }, high: wish.kinds)
          @candidates.each { |one| tie(one) }
          grass_row(wish.grass) if wish.grass
          cost_row(wish.budget) if wish.budget
          @short = needs.to_h { |need| [need, shortage(need)] }
        end

        # Columns of its share: up to the usual one, and beyond.
        def shares(one)
          worth, usual = [one.score, LITTLE].max / PARTS, usual(one)
          [@programme.column(worth:, most: usual), @programme.column(worth: FURTHER * worth, most: most_parts - usual)]
        end

        # {column => amount} of the shares of some, so much of each.
        def of_share(some) = some.flat_map { |one| @share[one].map { |at| [at, yield(one)] } }.to_h

        def locked?(one, wish) = wish.locks.include?(one.native.key)

        # A share only of what is taken, and not less than makes sense.
        def tie(one)
          share = of_share([one]) { 1 }
          @programme.row(share.merge(@taken[one] => -most_parts), high: 0)
          @programme.row(share.merge(@taken[one] => -least_parts(one)), low: 0)
        end

        # Where no grass fits at all there is nothing to keep to: that is a gap.
        def grass_row((least, most))
          grassy, rest = @candidates.partition { |one| one.native.grassy? }
          return if grassy.empty? || rest.empty?

          low = [(least * PARTS).ceil, grassy.size * most_parts].min
          @programme.row(of_share(grassy) { 1 }, low:, high: (most * PARTS).floor)
        end

        # What has no price is not bought on a budget.
        def cost_row(budget)
          @candidates.reject(&:cost).each { |one| @programme.hold(@taken[one], 0) }
          priced = @candidates.select(&:cost)
          @programme.row(of_share(priced) { |one| one.cost * @m2 / PARTS }, high: budget)
        end

        def shortage(need)
          short = @programme.column(worth: -need.penalty, most: need.least.to_f, whole: false)
          row = @candidates.select { |one| need.meets.call(one) }.to_h { |one| [@taken[one], 1] }
          @programme.row(row.merge(short => 1), low: need.least)
          short
        end

        def needs
          @needs ||= MixNeeds.of(@candidates, months: @months, jobs: @jobs, kinds: @wish.kinds)
        end

        def read(found)
          items = @candidates.filter_map do |one|
            parts = @share[one].sum { |at| found.values[at].round }
            Item.new(native: one.native, parts:, cost: one.cost && (one.cost * @m2 * parts / PARTS)) if parts.positive?
          end
          items = items.sort_by { |item| [-item.parts, item.native.name] }.freeze
          Answer.new(items:, gaps: gaps(items), worth: found.worth, proved: found.proved,
                     cost: items.all?(&:cost) ? items.sum(&:cost) : nil)
        end

        def gaps(items)
          taken = @candidates.select { |one| items.any? { |item| item.native == one.native } }
          open = needs.filter_map do |need|
            short = need.least - taken.count(&need.meets)
            next unless short.positive?

            Gap.new(about: need.about, what: need.what, short:, possible: @candidates.any?(&need.meets))
          end
          (open + grass_gap(items)).freeze
        end

        # Less grass than was stated, since so little fits.
        def grass_gap(items)
          least = @wish.grass ? (@wish.grass[0] * PARTS).ceil : 0
          short = least - items.select { |item| item.native.grassy? }.sum(&:parts)
          short.positive? ? [Gap.new(about: :grass, what: least - short, short:, possible: short < least)] : []
        end
      end
    end
  end
end
