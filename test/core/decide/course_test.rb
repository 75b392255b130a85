# frozen_string_literal: true

require "test_helper"

module Thistle
  # What follows from a verdict: the course, mixed sizes, other schools, questions, contradictions, safety, local rules.
  class CourseTest < Minitest::Test
    D = Core::Decide
    LIBRARY = Core::Knowledge.shipped
    DEFAULTS = { settled: true, date: Testing::TODAY, size: "thumb", stance: "any", licensed: true,
                 aquatic_label: false,
                 water_m: 300.0, slope: "slope", natives_near: false, cover: 15, stems: 40, area_m2: 200.0 }.freeze

    # Cut stump in May: waits for full leaf, is painted, looked at next full leaf, hit again, replanted after frost,
    # closed.
    def test_a_course_follows_the_season
      site = Testing.site
      steps = course("amur_honeysuckle", "cut_stump").steps
      knock, again = steps.select { |step| step.kind == :treat }

      assert_equal site.year.date(:full_leaf), knock.on
      assert_equal 1, again.on.year - knock.on.year
      assert(steps.any? { |step| step.kind == :check && (step.on - site.year(again.on).date(:full_leaf)).abs < 10 })
      assert_operator steps.find { |step| step.kind == :replant }.on, :>=, site.year(again.on).date(:third_frost) - 10
      assert_equal :close, steps.last.kind
      assert_equal steps.map(&:on).sort, steps.map(&:on)
      assert(steps.all? { |step| LIBRARY.sources.key?(step.source) })
    end

    # Seed that ripens before the knock-down is stopped first; what a method can never do here has no course.
    def test_seed_comes_first_and_the_impossible_has_no_course
      late = course("callery_pear", "basal_bark", date: Date.new(2026, 9, 20), stage: :ripe_seed, soil: :moist)

      assert_equal %i[seed treat], late.steps.map(&:kind).first(2).sort
      refute_predicate course("amur_honeysuckle", "cut_only"), :possible?
      assert_empty course("amur_honeysuckle", "cut_only").steps
    end

    def test_the_tall_stub_school_marks_now_and_treats_in_season
      tall = course("amur_honeysuckle", "cut_stump", size: "wrist",
                    schools: D::School.settle({ cut_when: "tall_stub" }))

      assert_equal [:mark, Testing::TODAY], [tall.steps.first.kind, tall.steps.first.on]
    end

    # Pull seedlings, treat the large, bag fruit first; totals are the sums.
    def test_a_mixed_patch_is_done_by_size
      mixed = D::Combination.new(bench("amur_honeysuckle", sizes: { "seedling" => 60, "wrist" => 20 }, stems: 80,
                                       date: Date.new(2026, 10, 5), stage: :ripe_seed, soil: :moist))

      assert_predicate mixed, :mixed?
      assert_equal [nil, "seedling", "wrist"], mixed.steps.map(&:size)
      assert_equal %w[seed_collect hand_pull cut_stump], mixed.steps.map { |step| step.verdict.removal.key }
      assert_in_delta mixed.steps.sum { |step| step.verdict.hours }, mixed.hours
      assert_in_delta ((60 * 95) + (20 * 92)) / 80.0, mixed.kill, 2
      refute_predicate D::Combination.new(bench("amur_honeysuckle", sizes: { "wrist" => 20 })), :mixed?
    end

    def test_other_schools_say_what_they_would_cost
      bench = bench("amur_honeysuckle", size: "wrist", stance: "stem", date: Date.new(2026, 10, 5), soil: :moist)
      answers = D::OtherSchools.new(bench).all
      none = answers.find { |answer| answer.option == "none" }

      assert_equal "lever_pull", none.best.removal.key
      assert_operator none.best.years_to_quiet, :>=, 2
      assert_in_delta 0, none.best.effort.litres_to_quiet
      refute(answers.any? { |answer| answer.school.key == "suckering_trees" }, "not asked of what does not sucker")
    end

    # By hand: six years of seed; stirred on the flat, four.
    def test_the_seed_bank_school_changes_the_years
      years = %w[leave stir].map do |seed_bank|
        schools = D::School.settle({ seed_bank: })
        bench("garlic_mustard", size: "seedling", schools:).verdict(LIBRARY.removal("hand_pull")).years_to_quiet
      end

      assert_equal [6, 4], years
    end

    def test_a_patch_answers_before_its_property_and_nonsense_is_passed_over
      settled = D::School.settle({ piles: "haul" }, { piles: "pile", carrier: "tap", cut_height: "moon" })

      assert_equal %w[haul tap low], settled.values_at(:piles, :carrier, :cut_height)
    end

    def test_questions_come_in_the_order_of_what_they_decide
      bench = bench("amur_honeysuckle", size: "wrist", water_m: nil, licensed: nil, date: Date.new(2026, 10, 5))
      asked = D::Unknowns.new(bench).asked

      assert_equal %i[water_m licensed], asked.map(&:fact).first(2)
      assert_includes asked.first.swayed, "Cut low and paint the ring"
      assert_empty D::Unknowns.new(bench("amur_honeysuckle", crew: 4, size: "wrist"))
                              .asked.map(&:fact) - %i[burn_permit clean_site]
    end

    def test_contradictions_are_said
      bench = bench("amur_honeysuckle", size: "seedling", stage: :ripe_seed, crew: 0, tools: [])
      found = D::Contradictions.new(bench, diameter: 20.0).all

      assert_equal %i[size stage crew tools], found.flat_map(&:fields)
      assert_equal "wider", D::Contradictions.size_of(20.0)
      assert_equal %i[water_m], D::Contradictions.new(bench("eurasian_watermilfoil", water_m: 40.0))
                                                 .all.flat_map(&:fields)
      assert_empty D::Contradictions.new(bench("amur_honeysuckle")).all
      assert_empty bench("amur_honeysuckle", crew: 0).verdicts.reject(&:no?)
    end

    def test_safety_is_on_every_answer
      burning = safety("giant_hogweed", "dig_crown", size: "seedling")
      near_water = safety("amur_honeysuckle", "cut_stump", water_m: 3.0, aquatic_label: true)
      rooting = safety("english_ivy", "hand_pull", size: "pencil")

      assert(burning.who.any? { |line| line.text.include?("trained against its sap") })
      assert(burning.dress.any? { |line| line.text.include?("face shield") })
      assert(near_water.permits.any? { |line| line.text.start_with?("Herbicide near water") })
      assert_includes rooting.never.text, "stems that root where they lie"
      assert_nil safety("callery_pear", "lever_pull", stage: :leaf).never
      hauled = safety("callery_pear", "lever_pull", stage: :leaf, schools: D::School.settle({ piles: "haul" }))

      assert_includes hauled.disposal.map(&:text).join, "hauls"
      LIBRARY.invaders.each do |plant|
        bench(plant.key).removals.each do |removal|
          refute_empty D::Safety.new(bench(plant.key).situation, removal).disposal, plant.key
        end
      end
    end

    # A rule of this ground tightens; what is switched off is silent; safety and law stay whatever is asked.
    def test_local_rules_and_rules_switched_off
      season = D::LocalRule.new(id: 1, about: "foliar", from: "03-01", to: "09-14", text: "Nesting birds.",
                                person: "Ada")
      book = D::RuleBook.new(off: %i[dry_soil licence], local: [season])
      spray = bench("garlic_mustard", size: "seedling", book:).verdict(LIBRARY.removal("foliar_spot"))

      assert_equal [:wait, Date.new(2026, 9, 15)], [spray.kind, spray.until]
      assert_equal "Nesting birds (Ada).", spray.against.text
      spraying = bench("garlic_mustard", size: "seedling", book:).windows(LIBRARY.removal("foliar_spot"))
      pulling = bench("amur_honeysuckle", size: "pencil", soil: :dry, book:).verdict(LIBRARY.removal("hand_pull"))
      cutting = bench("amur_honeysuckle", size: "wrist", licensed: false, book:).verdict(LIBRARY.removal("cut_stump"))

      assert(spraying.all? { |one| one.from >= Date.new(2026, 9, 15) || one.to < Date.new(2026, 3, 1) })
      assert_predicate pulling, :go?
      assert_predicate cutting, :no?
    end

    def test_a_local_rule_holds_in_its_zone_for_its_plant_and_over_new_year
      near = ->(distance_m) { [Core::Survey::Nearby.new(id: 7, kind: "trail", distance_m:, keep_m: 0)] }
      kind = ->(rule, zones, date = Testing::TODAY) do
        book = D::RuleBook.new(off: [], local: [rule])
        bench("garlic_mustard", size: "seedling", soil: :moist, zones:, date:, book:).kind(LIBRARY.removal("hand_pull"))
      end
      zone = D::LocalRule.new(id: 2, about: "any", zone: 7, text: "Old trail.", person: "Ada")
      winter = D::LocalRule.new(id: 3, about: "pulling", from: "11-01", to: "02-29", text: "Frost.", person: "Ada")

      assert_equal %i[no go go], [near[0.0], near[5.0], nil].map { |zones| kind[zone, zones] }
      assert_equal :go, kind[zone.with(plant: "caltrop"), near[0.0]]
      days = [Date.new(2026, 12, 5), Date.new(2027, 2, 10), Date.new(2026, 5, 12)]

      assert_equal(%i[wait wait go], days.map { |date| kind[winter, nil, date] })
      assert_equal Date.new(2027, 2, 28), D::LocalRule.day(2027, "02-29")
    end

    def test_the_method_library_is_whole
      # PRACTICE.md, section 3: two of its rows name two methods each.
      assert_equal 37, LIBRARY.methods_of_removal.size
      LIBRARY.methods_of_removal.each_value do |removal|
        assert_operator removal.brief.size, :>=, 2, removal.key
        assert_operator removal.kill["low"], :<=, removal.kill["likely"]
        assert_operator removal.kill["likely"], :<=, removal.kill["high"]
        refute_empty removal.follow_up
        assert(LIBRARY.invaders.any? { |plant| plant.removals.key?(removal.key) || removal.suits?(plant) },
               "#{removal.key} is for no plant")
      end
    end

    private

    def bench(plant, **changes)
      D::Bench.new(D::Facts.new(plant: Testing.plant(plant), **DEFAULTS, **changes), Testing.site)
    end

    def course(plant, method, **changes) = D::Course.new(bench(plant, **changes), LIBRARY.removal(method))
    def safety(plant, method, **changes) = D::Safety.new(bench(plant, **changes).situation, LIBRARY.removal(method))
  end
end
