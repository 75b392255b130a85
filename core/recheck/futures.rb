# frozen_string_literal: true

require "numo/narray"

module Thistle
  module Core
    module Recheck
      # Many futures of one stand, side by side: each number below is an array with a place for each future, and each
      # future has its own parameters. Counts stay whole, so that a stand can die out. The same seed gives the same.
      class Futures
        D = Numo::DFloat
        # seeds: living, in the ground; pieces: of root or stem; young: not yet bearing; adults; hurt: hit, and not
        # dead.
        Stand = Struct.new(:seeds, :pieces, :young, :adults, :hurt)
        # What a year showed: standing and seedlings before the visit; left: standing after it, hurt ones too; hit and
        # pulled: how many plants and seedlings the visits took on; alive: everything at the end, seeds and pieces too.
        Shown = Value.define(:standing, :seedlings, :left, :hit, :pulled, :seeds, :alive)
        SMALL = 0.3 # of a grown plant's room that a small one takes (memory)
        USES = 30 # draws that a year with two visits takes

        attr_reader :count, :at, :stand

        def inspect = "#<#{self.class.name} #{@count}>"

        # ranges: {name => Stages::Range}; annual: is its whole life one year? rain: seed from elsewhere, as that of so
        # many plants that stand here; m2: of ground.
        def initialize(ranges, count:, m2:, annual: false, rain: 0.0, seed: 1)
          @count, @m2, @annual, @rain, @seed = count, m2, annual, rain, seed
          @draws = {} # by count and year: strategies that are compared have the same luck
          noise = Draws.normal(seed, ranges.size * count * 2).reshape(ranges.size, count * 2)
          @at = ranges.each_with_index.to_h { |(key, range), n| [key, Draws.of(key, range, noise[n, true])] }
          keep = spreading
          @at.transform_values! { |values| values[keep].dup } # a view is slow
          @full = @at["crowd"] * [m2, 1.0].max
          @stand = Stand.new(*Array.new(5) { D.zeros(count) })
        end

        # The same futures, chosen: picks is the place that each takes its parameters and its stand from.
        def picked(picks) = clone.tap { |other| other.pick(picks) }

        # As it stands when it is first seen: plants, of which some bear, on seed of the years before.
        def begin_with(plants = @at.fetch("plants").round.clip(1, nil))
          bearing = (filled(plants) * BEARING).round
          @stand.young, @stand.adults = filled(plants) - bearing, bearing
          yearly = @annual ? @at["fecundity"] * plants : @at["fecundity"] * bearing
          kept = @at["keep"] * (1 - @at["germination"])
          @stand.seeds = (yearly * (1 - (kept**@at["stood"])) / (1 - kept).clip(0.001, 1)).round
          @stand.adults, @stand.young = D.zeros(@count), D.zeros(@count) if @annual
          self
        end
        BEARING = 0.6 # of the plants of a stand (memory)

        # One year. visit: nil where nobody comes, or {visits:, kill:, found:, small:, stirred:, late:}: how often
        # anybody comes (an array with a number for each future), what is killed of what is found, how much of plants
        # and of seedlings is found (arrays); stirred: is soil? late: had seed fallen before? Answers what it Shown.
        def year(number, visit)
          noise(number)
          rise(visit && visit[:stirred])
          standing, seedlings = @stand.young + @stand.adults, @up
          before = @stand.adults.dup
          @hit, @pulled = D.zeros(@count), D.zeros(@count)
          take(visit) if visit
          left = @stand.young + @stand.adults + @stand.hurt
          fall(visit && visit[:late] ? before : @stand.adults)
          grow
          Shown.new(standing:, seedlings:, left:, hit: @hit, pulled: @pulled, seeds: @stand.seeds,
                    alive: @stand.to_a.sum)
        end

        protected

        def pick(picks)
          @count = picks.size
          @at = @at.transform_values { |values| values[picks].dup }
          @full = @full[picks].dup
          @stand = Stand.new(*@stand.to_a.map { |values| values[picks].dup })
        end

        private

        def filled(number) = D.zeros(@count) + number

        # Places of as many as are kept: those first in which a plant leaves more than one, since a stand that got there
        # by itself grows where there is room.
        def spreading
          heirs = (@at["fecundity"] * from_seed) + @at["creep"]
          heirs *= grown_up / (1 - @at["adults"]) unless @annual
          order = D.cast(heirs > 1).to_a.each_with_index.sort_by { |grows, n| [-grows, n] }
          order.first(@count).map(&:last)
        end

        # Of a seed, the chance that it comes up some year and lives to the next.
        def from_seed
          @at["germination"] / (1 - (@at["keep"] * (1 - @at["germination"]))) * @at["seedlings"]
        end

        # Of a young plant, the chance that it comes to bear.
        def grown_up
          ripe = 1 / (@at["to_seed"] - 1).clip(1, nil)
          @at["juveniles"] * ripe / (1 - (@at["juveniles"] * (1 - ripe)))
        end

        def noise(number)
          @z = @draws[[@count, number]] ||= begin
            draws = Draws.normal((@seed * 1000) + number, USES * @count).reshape(USES, @count)
            Array.new(USES) { |n| draws[n, true].dup }
          end
          @use = -1
        end

        # How many of a count, each with a chance: near enough a binomial, whole.
        def part(of, chance)
          return unused(of) if of.max.zero?

          mean = of * chance
          variance = mean * chance
          D.minimum(whole(mean, mean - variance), of)
        end

        def counted(mean) = mean.max.zero? ? unused(mean) : whole(mean, mean.dup)

        # None of none; the draws that it would have taken stay unused, so that others have the same luck.
        def unused(none)
          @use = (@use + 1) % USES
          D.zeros(none.size)
        end

        # Whole numbers about a mean; where it is few, none or one. Works in place: to make an array costs more than to
        # fill it. (Takes both arrays.)
        def whole(mean, variance)
          @use = (@use + 1) % USES
          found = Numo::NMath.sqrt(variance.inplace).inplace
          found = [[:*, @z[@use]], [:+, mean], [:+, 0.5]].reduce(found) { |all, (what, by)| all.public_send(what, by) }
          found = D.maximum(found.floor, 0.0)
          few = mean.lt(0.5)
          return found if few.none?

          few = few.where
          found[few] = one(mean[few], @z[@use][few])
          found
        end

        # One where 1 - exp(-mean) is above a number from 0 to 1, taken from the far digits of the normals.
        def one(mean, normals)
          far = normals * 1e5
          chance = 1 - Numo::NMath.exp((-mean).inplace)
          (chance - far + far.floor).ceil
        end

        # What comes up: what was hurt stands again, seed germinates, pieces shoot.
        def rise(stirred)
          stand = @stand
          stand.adults += part(stand.hurt, @at["resprout"])
          stand.hurt = D.zeros(@count)
          @up = part(stand.seeds, @at[stirred ? "stirred" : "germination"])
          stand.seeds = part(stand.seeds - @up, @at["keep"])
          shoots = part(stand.pieces, @at["piece_shoots"])
          stand.pieces = part(stand.pieces - shoots, @at["piece_keep"])
          stand.young += part(shoots, 1 / (1 + ((stand.adults + (stand.young * SMALL)) / @full)))
        end

        # The visits of a year: what is found is hit; what lives of it is hit again at the next visit.
        def take(visit)
          stand = @stand
          visit[:visits].max.to_i.times do |n|
            there = D.cast(visit[:visits].gt(n))
            found = visit[:found] * there
            again = part(stand.hurt, found)
            stand.hurt -= part(again, visit[:kill])
            hit(again, found, visit[:kill])
            small = part(@up, visit[:small] * there)
            @up -= part(small, @at["kill_small"])
            @pulled += small
          end
        end

        # What is found of grown and young plants: dead, or hurt, and then with pieces left in the ground.
        def hit(again, found, kill)
          adults, young = part(@stand.adults, found), part(@stand.young, found)
          @stand.adults -= adults
          @stand.young -= young
          found = adults + young
          lived = found - part(found, kill)
          @stand.hurt += lived
          @stand.pieces += counted(lived * @at["pieces"])
          @hit += found + again
        end

        # Seed of what bears, and from elsewhere.
        def fall(bearing)
          if @annual
            stood = @up * @at["seedlings"]
            bearing = part(@up, @at["seedlings"] / (1 + (stood / @full)))
          end
          @stand.seeds += ((bearing * @at["fecundity"]) + 0.5).floor + counted(@at["fecundity"] * @rain)
        end

        def grow
          stand = @stand
          return stand.young = stand.adults = D.zeros(@count) if @annual

          small = stand.young + (@up * @at["seedlings"])
          room = 1 / (1 + ((stand.adults + (small * SMALL)) / @full))
          lived = part(stand.young, @at["juveniles"])
          ripe = part(lived, 1 / (@at["to_seed"] - 1).clip(1, nil))
          made = counted(stand.adults * @at["creep"] * room)
          stand.young = lived - ripe + made + part(@up, @at["seedlings"] * room)
          stand.adults = part(stand.adults, @at["adults"]) + ripe
        end
      end
    end
  end
end
