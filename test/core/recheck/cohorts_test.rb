# frozen_string_literal: true

require "test_helper"
require "support/climates"

module Thistle
  # What may come up after work, over every plant of the library that bears seed, in five climates and every season.
  class CohortsTest < Minitest::Test
    Cohorts = Core::Recheck::Cohorts

    def test_nobody_comes_too_late
      late = Core::Knowledge.shipped.plants.values.select(&:invasive?).flat_map do |plant|
        %w[north south tropics].flat_map { |place| faults(plant, place) }
      end

      assert_empty late
    end

    # [what is wrong]: a cohort that ends before it begins or before the work, or after ripe seed has begun.
    def faults(plant, place)
      site = Climates.site(place)
      [0, 91, 182, 273].flat_map do |days|
        since = site.today - 200 + days
        found = Cohorts.new(plant, site, since)
        ripe = found.ripe
        all = found.all
        wrong = all.reject { |one| one.from <= one.to && one.from > since }.map { |one| "#{one.what} #{one.from}" }
        late = all.select do |one|
          one.what.start_with?("whatever") && ripe && one.to >= ripe.last && one.to > since + 21
        end
        (wrong + late.map { |one| "late #{one.to}" }).map { |words| "#{plant.key} #{place} #{since}: #{words}" }
      end
    end

    # Seedlings of an annual are looked for before the warmth that they take to seed is there: by hand, the sum of
    # degree days from the day they came up.
    def test_seedlings_by_their_warmth
      site, plant = Testing.site, Testing.plant("japanese_stiltgrass")
      since = Date.new(2026, 6, 1)
      base, needed = (plant.warmth_to_seed || Core::Knowledge.shipped.stages["to_seed"]["summer"])
                     .values_at("base", "degree_days")
      cohorts = Cohorts.new(plant, site, since).all.select { |one| one.what.start_with?("seedlings") }

      refute_empty cohorts
      cohorts.each do |one|
        came = Date.strptime("#{one.what[/\d+ \w+\z/]} 2026", "%d %b %Y")
        warmth = (came..one.to).sum do |day|
          Core::Season::DegreeDays.sine(site.day(day).tmin, site.day(day).tmax, base)
        end

        assert(warmth < needed || one.to > since + 60, "#{one.what}: #{warmth.round} of #{needed}")
      end
    end
  end
end
