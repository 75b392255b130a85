# frozen_string_literal: true

require "test_helper"

module Thistle
  # Records move a patch and ask for visits.
  class StoreRecheckTest < Minitest::Test
    def setup
      Testing.demo(fresh: true)
      @db = Sequel::Model.db
      @property = Store::Property.first(prefix: "Q")
      @site = @property.site(Testing::TODAY)
    end

    def treat(patch, on: Testing::TODAY, **fields)
      Store::Treatment.record(patch, @site, done_on: on, method_key: "hand_pull", crew_size: 2, hours: 1.0, **fields)
    end

    def test_a_treatment_sets_return_visits_and_moves_the_patch
      patch = Testing.patch("Q-04")
      treatment = treat(patch, stems_done: 210)

      assert_equal "hit", patch.reload.state
      # The first year's look falls within days of full leaf-out, and is the same visit.
      assert_equal ["At the next full leaf-out: broken roots resprout",
                    "Before it seeds, look for missed plants and regrowth",
                    "Every year while seed or pieces live in the soil: new seedlings and shoots (2 years)"],
                   treatment.tasks.map(&:reason).sort
      assert_equal "moist", treatment.conditions["soil"]
      treat(patch.reload, stems_done: 4)

      assert_equal 3, patch.reload.open_tasks.size, "the second treatment's visits take the place of the first's"
    end

    # Whatever is entered first, the same records come to the same figures, and never to less than none.
    def test_records_in_any_order_of_entry_come_to_the_same
      random = Random.new(9)
      Array.new(6) do
        days = Array.new(5) { Testing::TODAY - random.rand(1..900) }.uniq
        told = days.map.with_index { |on, n| [n.even?, on, random.rand(0..40), random.rand(0..90)] }
        figures = Array.new(3) { entered(told.shuffle(random:)) }

        assert_equal 1, figures.uniq.size, told.inspect
        work, on, number, young = told.max_by { |row| row[1] }
        assert_equal [number + 1, young], figures.first if !work && on.year == Testing::TODAY.year
        assert_operator figures.first.compact.min, :>=, 0
      end
    end

    # [stems, seedlings] that stand on a patch with these records, which are taken back.
    def entered(told)
      figures = nil
      @db.transaction(rollback: :always) do
        told.each do |work, on, number, young|
          patch = Testing.patch("Q-04")
          next treat(patch, on:, stems_done: number) if work

          Store::Check.record(patch, checked_on: on, resprouts: number, missed: 1, seedlings: young)
        end
        figures = Testing.patch("Q-04").history.there(Testing::TODAY).to_h.values_at(:stems, :seedlings)
      end
      figures
    end

    # 20:30 in Chicago is tomorrow in UTC, and today there.
    def test_days_turn_on_the_clock_of_the_place
      at = Time.utc(2026, 5, 13, 1, 30)
      chicago, auckland = %w[America/Chicago Pacific/Auckland].map { |zone| Core::Season::Clock.new(zone) }
      @db.transaction(rollback: :always) do
        Store::Setting.where(key: "today").delete

        assert_equal [Date.new(2026, 5, 12), Date.new(2026, 5, 13)],
                     [chicago, auckland].map { |clock| Store::Setting.today(clock, now: at) }
        @property.update(timezone: "America/Chicago")
        work = treat(Testing.patch("Q-04"))
        work.this.update(created_at: at)

        assert_equal Date.new(2026, 5, 12), work.refresh.written_on
      end
    end

    def test_a_live_check_asks_for_work_and_a_clean_one_does_not
      patch = Testing.patch("Q-06")
      live = Store::Check.record(patch, checked_on: Testing::TODAY, resprouts: 5, missed: 2, seedlings: 11,
                                 cover_class: 1)

      assert_in_delta 100 * 59 / 64.0, live.control.percent
      assert_equal "regrowing", patch.reload.state
      assert_equal ["Treat again: 5 resprouts, 2 missed, 11 seedlings"],
                   patch.open_tasks.select { |t| t.kind == "treat" }.map(&:reason)
      treat(patch, stems_done: 7)

      assert_equal "hit", patch.reload.state, "what was found alive in the morning was treated that day"
      Store::Check.record(patch.reload, checked_on: Testing::TODAY + 30, resprouts: 0, missed: 0, seedlings: 0)

      assert_equal "quiet", patch.reload.state
      assert(patch.open_tasks.none? { |t| t.kind == "treat" })
    end

    def test_a_visit_that_waits_for_rain_follows_the_rain
      task = Testing.patch("D-01").tasks.find { |one| one.event && one.done_on.nil? }
      site = Testing.patch("D-01").property.site(Testing::TODAY)
      due = task.awaited.due(site, Date.new(2026, 5, 9))
      task.update(due_on: Date.new(2030, 1, 1))
      Store::Task.follow_weather(Store::Property.all, Testing::TODAY)

      assert_equal due, task.reload.due_on
    end

    # A look at the invader says nothing of what was planted; a count does, as long as it is kept; and all of it follows
    # the day of the planting.
    def test_visits_of_a_planting_are_their_own
      patch, today = Testing.patch("Q-01"), Testing::TODAY
      mix = [Store::PlantingPlan::Item.new(native: Core::Knowledge.shipped.native("spicebush"), share: 1.0,
                                           spacing_m: 1.0, count: 10, bulk_g: nil)]
      plan = Store::PlantingPlan.make(patch, kind: "plugs", area_m2: 20.0, mix:, said: {}, today:)
      open = -> { patch.tasks_dataset.where(kind: "planting").undone }
      kinds = -> { open[].select_order_map(:key).map { |key| key[/:(\w+)/, 1] } }

      assert_equal %w[arrival], kinds[]
      plan.planted(today - 366)
      Store::Check.record(patch, checked_on: today, resprouts: 0, missed: 0, seedlings: 0)

      assert_equal %w[count look], kinds[]
      count = Store::SurvivorCount.record(plan.plantings.first, counted_on: today, alive: 9, looked_at: 10)

      assert_equal %w[look], kinds[]
      count.take_back

      assert_equal %w[count look], kinds[]
      plan.plantings.first.correct(version: 0, person: "A", reason: "a slip", done_on: today - 10)

      assert_equal [today + 4, today + 355], open[].select_order_map(:due_on)
      look = patch.tasks_dataset.where(Sequel.like(:key, "%:look%")).first
      Store::Wishes.say(look, done_on: today, done_by: "hand")

      assert_equal %w[count], kinds[], "a person's word"
      plan.take_back

      assert_equal %w[count], kinds[], "what is in the ground is still counted"
    end

    # Where every visit is made and something may still live, the next yearly look is set; a closed patch has none.
    def test_what_may_live_has_a_next_date
      Store::Patch.live.all.each { |patch| Store::FollowUps.settle(patch) }
      Store::Patch.live.where(state: %w[hit regrowing quiet]).all.each do |patch|
        refute_empty patch.open_tasks, "#{patch.code}, #{patch.state}"
      end
      patch = Store::Patch.live.where(state: "quiet").exclude(plant_key: nil).first
      rest = ->(after) { Core::Recheck::Returns.rest(patch.plant, Testing.site, after) }
      open = Core::Recheck::FollowUp.new(patch.story, rest:).visits.reject(&:done_on)

      assert_equal [1, true], [open.size, open.first.due_on > patch.story.last.on]
    end
  end
end
