# frozen_string_literal: true

require "test_helper"

module Thistle
  # A method's rules day by day, and its windows, held against asking every rule anew on every day.
  class DocketTest < Minitest::Test
    D = Core::Decide
    PAIRS = [%w[amur_honeysuckle foliar_spot], %w[amur_honeysuckle cut_stump], %w[garlic_mustard hand_pull],
             %w[callery_pear basal_bark], %w[japanese_knotweed foliar_spot]].freeze

    def facts(plant)
      D::Facts.new(plant: Testing.plant(plant), settled: true, date: Testing::TODAY, size: "thumb", stance: "any",
                   licensed: true, aquatic_label: false, water_m: 60.0, slope: "flat", natives_near: false,
                   plants: 12, stems: 40, area_m2: 300.0, new_planting: false, clean_site: true)
    end

    def each_docket
      PAIRS.each do |plant, method|
        removal = Core::Knowledge.shipped.removal(method)
        projection = D::Projection.new(facts(plant), Testing.site)
        yield removal, projection, D::Docket.new(removal, projection, D::RuleBook::SHIPPED), "#{method} of #{plant}"
      end
    end

    # Rules that look at nothing of the day are asked once; that must not change what is said.
    def test_it_says_what_every_rule_says
      days = (0..360).step(9).map { |n| Testing::TODAY + n }
      each_docket do |removal, projection, docket, said|
        days.each do |day|
          plain = D::RuleBook::SHIPPED.for(removal).filter_map { |rule| rule.judge(projection.on(day), removal) }
          against = plain.select(&:against?).max_by(&:weight)

          assert_equal plain.map(&:rule).sort, docket.reasons(day).map(&:rule).sort, "#{said} on #{day}"
          assert_equal against&.weight, docket.objection(day)&.weight, "#{said} on #{day}"
        end
        open = days.find { |day| docket.objection(day).nil? }
        first = docket.first_open(days)

        open ? assert_equal(open, first, said) : assert_nil(first, said)
      end
    end

    # Between two turns one day speaks for all: no day of a window is objected to, and the day before each is.
    def test_windows_are_the_days_without_objection
      windows = 0
      each_docket do |removal, projection, _, said|
        usual = D::Docket.new(removal, projection, D::RuleBook::SHIPPED, usual: true)
        D::Windows.new(projection.facts, Testing.site).of(removal).each do |window|
          windows += 1
          middle = window.from + ((window.to - window.from) / 2).to_i

          assert([window.from, middle, window.to].all? { |day| usual.objection(day).nil? }, "#{said} #{window.from}")
          assert usual.objection(window.from - 1), "#{said} before #{window.from}" if window.opens
          assert usual.objection(window.to + 1), "#{said} after #{window.to}" if window.closes
        end
      end

      assert_operator windows, :>=, 3
    end
  end
end
