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
      assert_operator @seen, :>, 300, "cohorts were told"
    end

    # [what is wrong]: a cohort that ends before it begins or before the work, or after ripe seed has begun.
    def faults(plant, place)
      site = Climates.site(place)
      [0, 91, 182, 273].flat_map do |days|
        since = site.today - 200 + days
        found = Cohorts.new(plant, site, since)
        ripe = found.ripe
        all = found.all
        @seen = (@seen || 0) + all.size
        wrong = all.reject { |one| one.from <= one.to && one.from > since }.map { |one| "#{one.what} #{one.from}" }
        late = all.select do |one|
          one.what.start_with?("whatever") && ripe && one.to >= ripe.last && one.to > since + 21
        end
        (wrong + late.map { |one| "late #{one.to}" }).map { |words| "#{plant.key} #{place} #{since}: #{words}" }
      end
    end

    # Seedlings of an annual are looked for before the warmth that they take to seed is there: by hand, the sum of
    # degree days from the day they came up. Of those whose seed waits for short days, that is only the least.
    def test_seedlings_by_their_warmth
      site, since = Testing.site, Date.new(2026, 6, 1)
      annuals = Core::Knowledge.shipped.plants.values.select { |plant| plant.is?(:annual) && plant.invasive? }
      told = annuals.sum do |plant|
        cohorts = Cohorts.new(plant, site, since).all.select { |one| one.what.start_with?("seedlings") }
        late = cohorts.reject { |one| in_time?(plant, site, one) }

        assert_empty late.map { |one| "#{plant.key}: #{one.what}, #{one.to}" } unless short_days?(plant)
        cohorts.size
      end

      assert_operator told, :>, 20
    end

    def in_time?(plant, site, cohort)
      green = site.calendar(plant).phases_on(site.year(Date.new(2026, 6, 1)).date(:midwinter)).include?(:leaf)
      usual = Core::Knowledge.shipped.stages["to_seed"].fetch(green ? "winter" : "summer")
      base, needed = (plant.warmth_to_seed || usual).values_at("base", "degree_days")
      warmth = ((cohort.from - Cohorts::SHOWS)...cohort.to).sum do |day|
        Core::Season::DegreeDays.sine(site.day(day).tmin, site.day(day).tmax, base)
      end
      warmth < needed
    end

    def short_days?(plant)
      plant.phases.any? { |row| row["phase"] == "ripe_seed" && Cohorts::BY_DAY_LENGTH.include?(row["from"]["anchor"]) }
    end
  end
end
