# frozen_string_literal: true

require "numo/narray"

module Thistle
  module Core
    module Recheck
      # Many futures of one stand, side by side: each number below is an array with a place for each future, and each
      # future has its own parameters. Counts stay whole, so that a stand can die out. The same seed gives the same.
      class Futures
        D = Numo::DFloat
        # seeds: living, in the ground; pieces: of root or stem; young: not yet bearing; adults: bearing, of an annual
        # the plants of this year; hurt: hit, and not dead.
        Stand = Struct.new(:seeds, :pieces, :young, :adults, :hurt)
        # What a year showed: standing and seedlings before the visit; left: standing after it, hurt ones too; hit and
        # pulled: how many plants and seedlings the visits took on; alive: everything at the end, seeds and pieces too.
        Shown = Value.define(:standing, :seedlings, :left, :hit, :pulled, :seeds, :alive)
        SMALL = 0.3 # of a grown plant's room that a small one takes (memory)
        MOST_KEPT = 0.98 # of seed that does not come up, in a year (memory)

        attr_reader :count, :at, :stand

        def inspect = "#<#{self.class.name} #{@count}>"

        # ranges: {name => Stages::Spread}; annual: is its whole life one year? rain: seed from elsewhere, as that of so
        # many plants that stand here; m2: of ground.
        def initialize(ranges, count:, m2:, annual: false, rain: 0.0, seed: 1)
          @count, @m2, @annual, @rain, @seed = count, m2, annual, rain, seed
          @draws = {} # by count and year: strategies that are compared have the same luck
          noise = Draws.normal(seed, ranges.size * count * 2).reshape(ranges.size, count * 2)
          @at = ranges.each_with_index.to_h { |(key, range), n| [key, Draws.of(key, range, noise[n, true])] }
          @at["bank"] = D.minimum(@at["bank"], (1 - @at["germination"]) * MOST_KEPT)
          keep = spreading
          @at.transform_values! { |values| values[keep].dup } # a view is slow
          @by = worked_out
          @most = 2 * @at["crowd"] * [m2, 1.0].max # where half of the places are taken, half of the seedlings find none
          @most = D.maximum(@most, @at["plants"]) if @at.key?("plants") # what stands there found room
          @stand = Stand.new(*Array.new(5) { D.zeros(count) })
        end

        # The same futures, chosen: picks is the place that each takes its parameters and its stand from.
        def picked(picks) = clone.tap { |other| other.pick(picks) }

        # As it stands when it is first seen: plants, of which some bear, on seed of the years before.
        def begin_with(plants = @at.fetch("plants").round.clip(1, nil))
          bearing = (filled(plants) * BEARING).round
          @stand.young, @stand.adults = filled(plants) - bearing, bearing
          @stand.young, @stand.adults = D.zeros(@count), filled(plants) if @annual
          kept = @at["bank"]
          @stand.seeds = (@at["fecundity"] * @stand.adults * (1 - (kept**@at["stood"])) / (1 - kept)).round
          self
        end
        BEARING = 0.6 # of the plants of a stand (memory)

        # One year. visit: nil where nobody comes, or {visits:, kill:, found:, small:, stirred:, late:, tears:, wakes:}:
        # how often anybody comes (an array with a number for each future), what is killed of what is found, how much of
        # plants and of seedlings is found (arrays); the others as a Strategy has them. Answers what it Shown.
        def year(number, visit)
          @luck = Luck.new(@seed, @count, number, @draws)
          rise(visit && visit[:stirred])
          standing, seedlings = @stand.young + @stand.adults, @up
          before = @stand.adults.dup
          @hit, @pulled = D.zeros(@count), D.zeros(@count)
          take(visit) if visit
          left = @stand.young + @stand.adults + @stand.hurt
          fall(visit && visit[:late] ? before : bearing)
          grow
          Shown.new(standing:, seedlings:, left:, hit: @hit, pulled: @pulled, seeds: @stand.seeds,
                    alive: @stand.to_a.sum)
        end

        protected

        def pick(picks)
          @count = picks.size
          @at = @at.transform_values { |values| values[picks].dup }
          @by = @by.transform_values { |values| values[picks].dup }
          @most = @most[picks].dup
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
          @at["germination"] / (1 - @at["bank"]) * @at["seedlings"]
        end

        # Of a young plant, the chance that it comes to bear.
        def grown_up
          ripe = 1 / (@at["to_seed"] - 1).clip(1, nil)
          @at["juveniles"] * ripe / (1 - (@at["juveniles"] * (1 - ripe)))
        end

        # What follows from the parameters in every year. kept: of seed that does not come up, what is left a year later
        # (with what came up it makes the whole loss); ripe: of young plants, that come to bear; old: of hurt plants,
        # that live on; slow: of daughters, that grow up first.
        def worked_out
          { kept: @at["bank"] / (1 - @at["germination"]), ripe: 1 / (@at["to_seed"] - 1).clip(1, nil),
            old: D.maximum(@at["adults"], @at["juveniles"]), slow: 1 - @at["daughters"] }
        end

        def part(of, chance) = @luck.part(of, chance)
        def counted(mean) = @luck.counted(mean)

        # What comes up: what was hurt stands again, or lives on as young; seed germinates, pieces shoot.
        def rise(stirred)
          stand = @stand
          again = part(stand.hurt, @at["resprout"])
          stand.adults += again
          stand.young += stand.hurt - again
          stand.hurt = D.zeros(@count)
          @up = part(stand.seeds, @at[stirred ? "stirred" : "germination"])
          stand.seeds = part(stand.seeds - @up, @by[:kept])
          shoots = part(stand.pieces, @at["piece_shoots"])
          stand.pieces = part(stand.pieces - shoots, @at["piece_keep"])
          stand.young += settled(shoots)
          stand_up if @annual
        end

        # Annuals of this year, of what came up; those that were counted when it was first seen stand already.
        def stand_up
          grown = @stand.adults.max.zero? ? settled(@up * @at["seedlings"], 1.0) : @stand.adults
          @up -= D.minimum(@up, grown)
          @stand.adults = grown
        end

        # How many of so many newcomers find room: each takes a place at random, and the place of a grown one or
        # a part of it.
        def settled(newcomers, each = SMALL)
          return @luck.unused(newcomers) if newcomers.max.zero?

          free = (@most - @stand.adults - @stand.hurt - (@stand.young * SMALL)).clip(0, nil) / each
          found = counted(free * (1 - Numo::NMath.exp(newcomers * -each / @most)))
          D.minimum(found, D.minimum(newcomers, free).ceil)
        end

        # The visits of a year: what is found is hit; what lives of it is hit again at the next visit.
        def take(visit)
          stand = @stand
          visit[:visits].max.to_i.times do |n|
            there = D.cast(visit[:visits].gt(n))
            found = visit[:found] * there
            again = part(stand.hurt, found)
            stand.hurt -= part(again, visit[:kill])
            hit(again, found, visit)
            next if @annual # what is left of its seedlings dies by itself

            small = part(@up, visit[:small] * there)
            @up -= part(small, @at["kill_small"])
            @pulled += small
          end
        end

        # What is found of grown and young plants: dead, or hurt, and then with pieces left where the work tears them,
        # and with suckers where it wakes them.
        def hit(again, found, visit)
          adults, young = part(@stand.adults, found), part(@stand.young, found)
          @stand.adults -= adults
          @stand.young -= young
          found = adults + young
          lived = found - part(found, visit[:kill])
          @stand.hurt += lived
          @stand.pieces += counted(lived * @at["pieces"]) if visit[:tears]
          @stand.young += settled(lived * @at["wakes"]) if visit[:wakes]
          @hit += found + again
        end

        # What seeds this year: what stands, and what was hit and flowers again.
        def bearing = @stand.adults + part(@stand.hurt, @at["seeds_on"])

        # Seed of what bears, and from elsewhere.
        def fall(bearing)
          @stand.seeds += ((bearing * @at["fecundity"]) + 0.5).floor + counted(@at["fecundity"] * @rain)
        end

        def grow
          stand = @stand
          return stand.young = stand.adults = stand.hurt = D.zeros(@count) if @annual

          daughters = stand.adults * @at["creep"]
          age
          stand.adults += settled(daughters * @at["daughters"], 1.0)
          stand.young += settled((@up * @at["seedlings"]) + (daughters * @by[:slow]))
          stand.hurt = part(stand.hurt, @by[:old])
        end

        # Who lives on, and who comes to bear where there is room for a grown one.
        def age
          lived = part(@stand.young, @at["juveniles"])
          ripe = part(lived, @by[:ripe])
          grown = part(@stand.adults, @at["adults"])
          ripe = D.minimum(ripe, (@most - grown).clip(0, nil).floor)
          @stand.adults, @stand.young = grown + ripe, lived - ripe
        end
      end
    end
  end
end
