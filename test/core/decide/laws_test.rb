# frozen_string_literal: true

require "test_helper"
require "support/climates"

module Thistle
  # Laws that any handbook would sign (common practice), over every invader, month, size or stage of life and five
  # climates, on ground where nothing else stands against the work: no go breaks one.
  class LawsTest < Minitest::Test
    KIND = { settled: true, stance: "any", licensed: true, aquatic_label: true, slope: "flat", natives_near: false,
             full_cover: true, burn_permit: true, fire_adapted: true, clean_site: true, crew: 8, area_m2: 50.0,
             stems: 20 }.freeze
    SHAKES = %i[cutting topping mulching grazing machine burning turf].freeze
    ROOTS = %i[pulling digging severing levering rolling turf].freeze
    Now = Core::Value.define(:bench, :situation, :removal) do
      def plant = situation.plant
      def leafless? = !situation.in_leaf?
    end
    LAWS = {
      "no leaf spray without leaves" => ->(now) { now.removal.is?(:foliar) && now.leafless? },
      "no stem herbicide on dead canes" =>
        ->(now) { now.removal.is?(:stem_herbicide) && !now.plant.woody? && now.leafless? },
      "no grazing of what has no leaf" => ->(now) { now.removal.is?(:grazing) && now.leafless? },
      "no seed shaken out" =>
        ->(now) { now.situation.seeding? && now.removal.is?(*SHAKES) && !now.removal.herbicide? },
      "no roots out of frozen ground" => ->(now) { now.situation.soil == :frozen && now.removal.is?(*ROOTS) }
    }.freeze

    %w[north south tropics coast desert].each do |place|
      define_method(:"test_no_go_breaks_a_law_in_the_#{place}") do
        broken, gone = Hash.new(0), 0
        each_go(Climates.site(place)) do |now|
          gone += 1
          LAWS.each { |law, breaks| broken["#{law}: #{now.plant.key} #{now.removal.key}"] += 1 if breaks.call(now) }
        end

        assert_operator gone, :>, 4000
        assert_empty broken
      end
    end

    # Nothing stands first that another beats at once in hours, control and cost.
    def test_nothing_stands_first_that_another_beats_in_all
      beaten = []
      each_bench(Climates.site("north"), [4, 7, 10]) do |bench|
        going = bench.verdicts.select { |one| one.go? && one.removal.removes? }
        first = going.first or next
        worth = ->(one) { [one.hours, -one.kill["likely"], one.effort.cost] }
        going.drop(1).each do |other|
          better = worth[other].zip(worth[first]).all? { |mine, theirs| mine < theirs - 1e-9 }
          beaten << [bench.facts.plant.key, first.removal.key, other.removal.key].join(" ") if better
        end
      end

      assert_empty beaten.uniq
    end

    private

    def each_go(site)
      each_bench(site) do |bench|
        situation = bench.situation
        bench.removals.select(&:removes?).each do |removal|
          yield Now.new(bench:, situation:, removal:) if bench.kind(removal) == :go
        end
      end
    end

    def each_bench(site, months = 1..12)
      Core::Knowledge.shipped.invaders.each do |plant|
        ground = plant.aquatic? ? { water_m: 0.0, cover: 15.0 } : { water_m: 300.0, cover: 80.0 }
        months.to_a.product(Core::Removal.sizes_of(plant)) do |month, size|
          facts = Core::Decide::Facts.new(plant:, date: Date.new(2026, month, 12), size:, **ground, **KIND)
          yield Core::Decide::Bench.new(facts, site)
        end
      end
    end
  end
end
