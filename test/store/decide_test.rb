# frozen_string_literal: true

require "test_helper"

module Thistle
  # What the decide room keeps: ranks by place, courses that follow the records, rules and schools of a property.
  class StoreDecideTest < Minitest::Test
    def setup
      Testing.demo(fresh: true)
      @property = Store::Property.first(prefix: "Q")
      @site = @property.site(Testing::TODAY)
    end

    def candidates = Store::Ranking.new(@property.refresh, Testing::TODAY).candidates.to_h { |one| [one.code, one] }

    # Distances of the rank against the shapes themselves.
    def test_a_rank_knows_its_ground
      one = candidates.fetch("Q-02")
      patch = Testing.patch("Q-02")
      trail = @property.zones.select { |zone| zone.kind == "trail" }
                       .map { |zone| patch.ground.distance(zone.shape) }.min

      assert_equal "trail", one.place.way[:label]
      assert_in_delta trail, one.place.way[:m], 0.06
      assert_predicate one, :started
      assert_equal 50, one.left, "40 stems by the check of last May, and ten seedlings since"
      assert_nil candidates.fetch("Q-03").left
    end

    # The nearest of the same plant and its share, against every pair looked at.
    def test_neighbours_of_the_same_plant_are_found
      twin = plant_copy("Q-07", east: 0.0009)
      one = candidates.fetch("Q-07")
      apart = middle_apart(Testing.patch("Q-07"), twin)

      assert_in_delta apart, one.nearest_m, 1
      assert_in_delta 0.5, one.share, 0.01
      assert_nil candidates.fetch("Q-25").nearest_m
    end

    def test_a_source_across_the_fence_lowers_what_can_be_finished
      assert_nil candidates.fetch("Q-07").place.source_m
      plant_copy("Q-07", east: 0.0011, property: Store::Property.first(prefix: "P"))
      one = candidates.fetch("Q-07")

      assert_operator one.place.source_m, :<, 150
      assert_operator Core::Decide::Priority::Parts.neighbours(one), :<, 1
    end

    # A zone that comes or goes is told (of a secret one, its kind alone) to the patches whose rank it touches.
    def test_a_new_zone_moves_the_rank
      patch = Testing.patch("Q-04")
      lon, lat = patch.shape.centre
      zone = Store::Zone.new(property_id: @property.id, kind: "rare_plants", name: "Orchids")
      zone.shape = Core::Survey::Shape.new("type" => "Point", "coordinates" => [lon, lat])
      zone.save
      zone.tell

      assert_equal({ label: "rare plants", m: 0.0, worth: 1.0 }, candidates.fetch("Q-04").place.precious)
      zone.take_off
      zone.tell

      refute_equal "Orchids", candidates.fetch("Q-04").place.precious&.fetch(:label)
    end

    # Seed first, then the knock-down; a check ticks the look that was due; a new course takes the old one's place.
    def test_a_course_is_carried_by_the_records
      course = begin_course("Q-05", "lever_pull")
      knock = course.steps.find { |step| step.kind == "treat" }
      Store::Treatment.record(course.patch, @site, done_on: Testing::TODAY, method_key: "lever_pull", crew_size: 4,
                              hours: 3)

      ticked = course.refresh.steps.select do |step|
        step.id == knock.id || (step.kind == "disposal" && step.due_on == knock.due_on)
      end

      assert_equal [Testing::TODAY] * 2, ticked.map(&:done_on).first(2)
      look = course.steps.find { |step| step.kind == "check" }
      Store::Check.record(course.patch, checked_on: look.due_on + 3, resprouts: 1, missed: 0, seedlings: 2)

      assert_equal look.due_on + 3, look.refresh.done_on
      other = begin_course("Q-05", "cut_stump")

      assert_equal [other.id], Store::Course.live.where(patch_id: course.patch_id).select_map(:id)
      assert_empty Store::Task.where(course_id: course.id, done_on: nil)
      course.refresh.resume

      assert_equal [course.id], Store::Course.live.where(patch_id: course.patch_id).select_map(:id)
    end

    # A treatment by another method, or long before its step, leaves the course as it was.
    def test_other_work_does_not_tick_a_step
      course = begin_course("Q-05", "lever_pull")
      Store::Treatment.record(course.patch, @site, done_on: Testing::TODAY, method_key: "seed_collect", crew_size: 1,
                              hours: 1)

      assert_empty course.refresh.steps.filter_map(&:done_on)
    end

    # Patches that are asked together get the answer that each gets alone: the demo's, and each again with one thing
    # changed.
    def test_patches_alike_get_the_answer_that_each_gets_alone
      today = Testing::TODAY
      changes = [{}, { water_m: 3.0 }, { water_m: 0.0 }, { cover_percent: 60.0, cover_class: nil },
                 { cover_percent: 80.0 }, { slope_deg: 25.0 }, { footing: "rock" },
                 { natives_near: true }, { schools: '{"herbicide":"none"}' }, { stem_size: "wider" }]
      Store::Patch.wanting_work.exclude(plant_key: nil).all.each_with_index do |patch, n|
        changes.each_with_index do |change, m|
          Store::Patch.insert(**patch.values.except(:id), **change, code: "T-#{n}-#{m}")
        end
      end
      climber = Store::Patch.first(plant_key: "oriental_bittersweet", code: "T-0-0") ||
                Store::Patch.first(plant_key: "oriental_bittersweet")
      Store::Treatment.create(patch_id: climber.id, done_on: today - 20, method_key: "survival_ring", crew_size: 1,
                              hours: 1.0)
      answer = ->(patches) do
        Core::Decide::Agenda.new(patches.filter_map { |one| entry(one, today) })
                            .items.to_h { |item| [item.id, [item.group, item.verdict.removal.key, item.until]] }
      end
      alone = answer.call(Store::Patch.wanting_work.exclude(plant_key: nil).all)
      groups = Store::Alike.groups
      group_of = ->(id) { groups.find { |group| group.id == id } }
      said = answer.call(Store::Alike.patches(groups).values)
      together = said.flat_map { |id, told| group_of[id].ids.map { |one| [one, told] } }.to_h

      assert_equal alone, together
      assert_operator groups.size, :<, alone.size * 0.9
    end

    def entry(patch, today)
      facts = patch.facts(today)
      facts && patch.plant.invasive? && Core::Decide::Agenda::Entry.new(id: patch.id, facts:,
                                                                        site: patch.property.site(today))
    end

    # Answers that are kept from page to page follow whatever they rest on: a report, the day of a treatment, a
    # planting, a count, another region.
    def test_kept_answers_follow_what_they_rest_on
      kept = Core::Kept.new(5000)
      told = ->(code) {
        ranked(kept).fetch(code).then do |one|
          [one.facts.with(kills: nil), one.verdict.kind, one.left]
        end
      }
      vine, tree = Testing.patch("Q-10"), Testing.patch("Q-04")
      freed = Store::Treatment.record(vine, @property.site(Testing::TODAY), done_on: Testing::TODAY - 20, crew_size: 1,
                                                                            method_key: "survival_ring", hours: 1.0)
      changes = {
        "Q-10" => -> { freed.correct(version: 0, person: "Ada", reason: "a slip", done_on: Testing::TODAY - 900) },
        "Q-04" => -> do
          Store::Planting.create(patch_id: tree.id, native_key: "spicebush", done_on: Testing::TODAY - 9, plugs: 5,
                                 from_on: Testing::TODAY - 9, area_m2: 4.0, to_on: Testing::TODAY)
        end,
        "Q-07" => -> do
          Store::Check.record(Testing.patch("Q-07"), checked_on: Testing::TODAY, resprouts: 2, missed: 0, seedlings: 0)
        end
      }
      changes.each do |code, change|
        before = told[code]
        change.call

        refute_equal before, told[code], code
        assert_equal ranked(Core::Kept.new(5000)).fetch(code).facts, ranked(kept).fetch(code).facts, code
      end
      @property.refresh.update(region: "british_isles")

      assert_equal ranked(Core::Kept.new(5000)).keys, ranked(kept).keys
    end

    def ranked(kept)
      property = Store::Property[@property.id]
      Store::Ranking.new(property, Testing::TODAY, kept:).candidates.to_h { |one| [one.code, one] }
    end

    def test_rules_and_schools_reach_a_patch_and_its_agenda
      patch = Testing.patch("Q-04")
      before = patch.facts(Testing::TODAY)
      Store::LocalRule.create(property_id: @property.id, about: "pulling", reason: "Bluebells", person: "Ada",
                              said_on: Testing::TODAY)
      Store::RuleSetting.create(property_id: @property.id, rule_key: "moist_soil", reason: "Noise", person: "Ada",
                                said_on: Testing::TODAY)
      patch.update(schools: JSON.generate(herbicide: "none", piles: "haul"))
      after = Testing.patch("Q-04").facts(Testing::TODAY)

      assert_equal %w[stem none], [before.stance, after.stance]
      assert_equal %w[pile haul], [before.school(:piles), after.school(:piles)]
      assert_equal [[:moist_soil], %w[machine pulling]], [after.book.off, after.book.local.map(&:about).sort]
      refute_equal "hand_pull", candidates.fetch("Q-04").verdict.removal.key
    end

    # Young plantings turn spraying into a no, without anyone saying so again.
    def test_what_was_planted_lately_is_known
      patch = Testing.patch("Q-04")

      assert_nil patch.facts(Testing::TODAY).new_planting
      planting = Store::Planting.create(patch_id: patch.id, native_key: "spicebush", area_m2: 20.0,
                                        from_on: Testing::TODAY - 200, to_on: Testing::TODAY - 180)

      assert_nil Testing.patch("Q-04").facts(Testing::TODAY).new_planting, "nothing stands there yet"
      planting.planted(Testing::TODAY - 100) # later than its window

      assert Testing.patch("Q-04").facts(Testing::TODAY).new_planting
      refute Testing.patch("Q-04").facts(Testing::TODAY + (4 * 365)).new_planting
    end

    private

    def begin_course(code, method)
      patch = Testing.patch(code)
      bench = Core::Decide::Bench.new(patch.facts(Testing::TODAY), @site)
      removal = Core::Knowledge.shipped.removal(method)
      Store::Course.begin(patch, Core::Decide::Course.new(bench, removal), removal:, advised: bench.best.removal.key,
                          person: "Ada", reason: nil, today: Testing::TODAY)
    end

    # The same patch again, some degrees to the east.
    def plant_copy(code, east:, property: @property)
      from = Testing.patch(code)
      rings = from.shape.geometry["coordinates"].map { |ring| ring.map { |lon, lat| [lon + east, lat] } }
      moved = from.shape.geometry.merge("coordinates" => rings)
      patch = Store::Patch.new(property_id: property.id, code: "X-1", plant_key: from.plant_key, state: "standing",
                               seen_on: from.seen_on, cover_class: 2)
      patch.shape = Core::Survey::Shape.new(moved)
      patch.save
    end

    def middle_apart(one, other)
      places = [one, other].map { |patch| [(patch.west + patch.east) / 2, (patch.south + patch.north) / 2] }
      Core::Survey::Geodesic.length(places)
    end
  end
end
