# frozen_string_literal: true

require "test_helper"

module Thistle
  # What a method takes of each plant.
  class EffortTest < Minitest::Test
    LIBRARY = Core::Knowledge.shipped

    # By a second reading of values, recalled from crews' days (memory): how many of them one person does in an hour,
    # tool in hand. What is counted, and in what, follows from the plant: herbs by the plant, cut stems by the stem,
    # rooting mats and covered ground by area.
    def test_an_hour_of_work
      an_hour = { %w[hand_pull garlic_mustard thumb] => [200, 400], %w[hand_pull himalayan_balsam thumb] => [200, 600],
                  %w[cut_below_crown bull_thistle thumb] => [100, 200],
                  %w[loosen_and_pull dames_rocket thumb] => [60, 120] }
      an_hour.each do |(method, plant, size), (low, high)|
        done = effort(method, plant, size:, plants: 100)

        assert_includes low..high, 100 / done.hours, "#{plant} #{method}"
      end
      per = { %w[cut_stump amur_honeysuckle] => :stem, %w[lever_pull amur_honeysuckle] => :plant,
              %w[hand_pull ground_ivy] => :m2, %w[opaque_cover amur_honeysuckle] => :stem,
              %w[opaque_cover reed_canary_grass] => :m2 }
      found = per.keys.to_h { |key| [key, LIBRARY.removal(key.first).task(Testing.plant(key.last)).per] }

      assert_equal per, found
    end

    # Over every plant and method: work that goes plant by plant or stem by stem costs the same on ten times the ground.
    def test_money_follows_what_the_work_follows
      LIBRARY.invaders.product(LIBRARY.methods_of_removal.values) do |plant, removal|
        next if removal.task(plant).per == :m2 || removal.spray_l_per_100m2 || removal.follows(plant)

        size = Core::Removal.sizes_of(plant).last
        small, wide = [90.0, 900.0].map { |area_m2| effort(removal.key, plant.key, size:, stems: 7, area_m2:).cost }

        assert_in_delta small, wide, 0.01, "#{plant.key} #{removal.key}"
      end
    end

    # Over every plant, method and size: a task has minutes, the larger never takes less, and what comes after another
    # method takes that one's hours too.
    def test_larger_ones_take_no_less
      LIBRARY.invaders.product(LIBRARY.methods_of_removal.values) do |plant, removal|
        minutes = Core::Removal.sizes_of(plant).map { |size| removal.task(plant).at(size) }

        assert_operator minutes.min, :>, 0, "#{plant.key} #{removal.key}"
        assert_equal minutes.sort, minutes, "#{plant.key} #{removal.key}"
        before = removal.follows(plant) or next
        own = removal.task(plant).at("thumb") * 50 / 60
        hours = [removal.key, before].map { |key| effort(key, plant.key, size: "thumb", plants: 20, area_m2: 50).hours }

        assert_in_delta own + hours.last, hours.first, 1e-9, "#{plant.key} #{removal.key}"
      end
    end

    private

    def effort(method, plant, **facts)
      Core::Decide::Effort.new(LIBRARY.removal(method), Core::Decide::Facts.new(plant: Testing.plant(plant), **facts))
    end
  end
end
