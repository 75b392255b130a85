# frozen_string_literal: true

require "test_helper"

module Thistle
  # What a season plan may choose from, held against the rules asked of every single day.
  class SeasonOptionsTest < Minitest::Test
    D = Core::Decide
    PLANTS = { "garlic_mustard" => "seedling", "amur_honeysuckle" => "wrist", "tree_of_heaven" => "wider",
               "oriental_bittersweet" => "thumb" }.freeze
    WEEKS = Array.new(48) { |n| Date.new(2026, 5, 11) + (7 * n) }.freeze

    def setup
      @site = Testing.site
      candidates = PLANTS.keys.each_with_index.map { |plant, n| candidate(plant, n) }
      @rows = D::Priority.new(candidates, { "seed" => 5, "finishing" => 5 }).rows
    end

    # A week counts when its method is right on three of its days or more, as the year usually is; over New Year too.
    def test_every_option_is_inside_a_window
      options = options_of

      assert_equal PLANTS.keys.each_index.to_a, options.map(&:patch).uniq.sort
      assert_equal [2026, 2027], options.map { |option| WEEKS[option.week].year }.uniq.sort
      options.each do |option|
        assert_operator open_days(option), :>=, D::SeasonOptions::DAYS_OPEN,
                        "#{option.method} of #{option.patch} in the week of #{WEEKS[option.week]}"
      end
    end

    # And a week that is not offered has fewer such days.
    def test_no_open_week_is_missed
      options_of.group_by { |option| [option.patch, option.method] }.each_value do |own|
        missed = WEEKS.each_index.to_a - own.map(&:week)

        assert(missed.all? { |week| open_days(own.first.with(week:)) < D::SeasonOptions::DAYS_OPEN })
      end
    end

    def test_herbicide_only_while_the_licence_is_there
      licensed = Date.new(2026, 9, 1)..Date.new(2026, 9, 20)
      weeks = options_of(licensed:).select { |option| Core::Knowledge.shipped.removal(option.method).herbicide? }
                                   .map { |option| WEEKS[option.week] }.uniq

      assert(weeks.any? && weeks.all? { |monday| monday <= licensed.end && monday + 6 >= licensed.begin })
    end

    # A patch of more hours than a week has is done in parts that fit, which make up the whole.
    def test_large_patches_come_in_parts
      whole = options_of.find { |option| option.method == "cut_stump" }
      same = ->(option) { %i[patch method week].all? { |field| option[field] == whole[field] } }
      parts = options_of(hours: [whole.hours / 2.5] * WEEKS.size).find(&same)

      assert_equal 3, parts.parts
      %i[hours cost gain].each { |figure| assert_in_delta whole[figure], parts[figure] * 3, 1e-9 }
    end

    # This year's seed on the ground takes from what a visit prevents; waiting takes a little.
    def test_gain_falls_when_seed_has_fallen
      own = options_of.select { |option| option.patch.zero? && option.method == "hand_pull" }.sort_by(&:week)
      before, after = own.partition { |option| WEEKS[option.week] + 6 <= @rows.first.candidate.seed_on }

      assert_operator before.map(&:gain).min, :>, after.map(&:gain).max
      assert_equal before.map(&:gain).sort.reverse, before.map(&:gain)
    end

    private

    def options_of(hours: [40.0] * WEEKS.size, licensed: nil)
      D::SeasonOptions.new(@rows, @site, weeks: WEEKS, hours:, licensed:).all
    end

    def open_days(option)
      facts = @rows.find { |row| row.id == option.patch }.candidate.facts
      removal = Core::Knowledge.shipped.removal(option.method)
      projection = D::Projection.new(facts, @site)
      (WEEKS[option.week]..(WEEKS[option.week] + 6)).count do |date|
        date >= @site.today &&
          facts.rules.for(removal).none? { |rule| rule.judge(projection.usually(date), removal)&.against? }
      end
    end

    def candidate(plant, id)
      facts = D::Facts.new(plant: Testing.plant(plant), settled: true, date: @site.today, size: PLANTS[plant],
                           stance: "stem", licensed: true, aquatic_label: false,
                           water_m: 90.0, slope: "slope", natives_near: true, cover: 15.0, stems: 60,
                           area_m2: 300.0)
      bench = D::Bench.new(facts, @site)
      seed_on = facts.calendar(@site).next(:ripe_seed, @site.today) if plant == "garlic_mustard"
      D::Priority::Candidate.new(id:, code: plant, facts:, today: @site.today,
                                 verdict: bench.best || bench.verdicts.first, share: 0.5, place: D::Priority::Place.new,
                                 seed_on:)
    end
  end
end
