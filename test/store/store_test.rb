# frozen_string_literal: true

require "test_helper"

module Thistle
  class StoreTest < Minitest::Test
    def setup
      Testing.demo(fresh: true)
      @db = Sequel::Model.db
      @property = Store::Property.first(prefix: "Q")
      @site = @property.site(Testing::TODAY)
    end

    def treat(patch, on: Testing::TODAY, **fields)
      Store::Treatment.record(patch, @site, done_on: on, method_key: "hand_pull", crew_size: 2, hours: 1.0, **fields)
    end

    def test_what_was_acknowledged_is_safe
      assert_equal ["wal", 1, 2], %w[journal_mode foreign_keys synchronous].map do |name|
        @db.fetch("PRAGMA #{name}").get
      end
      assert_raises(Sequel::ForeignKeyConstraintViolation) do
        Store::Observation.create(patch_id: 999_999, seen_on: Testing::TODAY, settled: true)
      end
    end

    # A file of the first version opens with all that was in it, and a copy of it is kept beside it.
    def test_an_older_file_comes_up_to_date_and_loses_nothing
      Dir.mktmpdir do |dir|
        path = File.join(dir, "thistle.db")
        old = Sequel.sqlite(path)
        Sequel::Migrator.run(old, Store::Database::MIGRATIONS, target: 1)
        old[:properties].insert(name: "Old ground", prefix: "O", latitude: 38.0, longitude: -91.0, station_seed: 1,
                                climate: "{}")
        old.disconnect
        Sequel.sqlite(path) do |db|
          Store::Database.send(:bring_up_to_date, db, path)

          assert_equal ["Old ground", nil, "[]"], db[:properties].first.values_at(:name, :region, :watch)
          assert Sequel::Migrator.is_current?(db, Store::Database::MIGRATIONS)
        end
        copy = Dir["#{path}.before-*"].first

        Sequel.sqlite(copy) { |db| assert_equal ["Old ground"], db[:properties].select_map(:name) }
      end
    end

    # The R*Tree finds what a look at every row finds, for random views.
    def test_viewport_through_the_tree
      random = Random.new(4)
      20.times do
        west, south = @property.longitude + random.rand(-0.008..0.004), @property.latitude + random.rand(-0.006..0.003)
        box = [west, south, west + random.rand(0.0005..0.006), south + random.rand(0.0005..0.006)]
        plain = @property.live_patches.all.select do |p|
          p.west <= box[2] && p.east >= box[0] && p.south <= box[3] && p.north >= box[1]
        end

        found = JSON.parse(Store::InView.new(@property.id, box).json)["features"]

        assert_equal plain.map(&:id).sort, found.map { |f| f["id"] }.sort
        assert_equal plain.map(&:id).sort, Store::Patch.live.within(box).where(property_id: @property.id)
                                                       .select_map(:id).sort
      end
    end

    def test_extents_follow_a_moved_and_a_deleted_patch
      patch = Testing.patch("Q-01")
      patch.shape = Core::Survey::Shape.new("type" => "Point", "coordinates" => [-91.39, 38.01])
      patch.save

      assert_equal [patch.id], Store::Patch.within([-91.3901, 38.0099, -91.3899, 38.0101]).select_map(:id)
      patch.delete

      assert_empty Store::Patch.within([-91.3901, 38.0099, -91.3899, 38.0101]).all
    end

    def test_a_treatment_sets_return_visits_and_moves_the_patch
      patch = Testing.patch("Q-04")
      treatment = treat(patch, stems_done: 210)

      assert_equal "hit", patch.reload.state
      # The first year's look falls within days of full leaf-out, and is the same visit.
      assert_equal ["Every year of the seed bank's life: new seedlings (year 2 of 2)",
                    "Next full leaf-out: snapped roots answer"],
                   treatment.tasks.map(&:reason).sort
      assert_equal "moist", treatment.conditions["soil"]
      treat(patch.reload, stems_done: 4)

      assert_equal 2, patch.reload.open_tasks.size, "the second treatment's visits take the place of the first's"
    end

    def test_a_live_check_asks_for_work_and_a_clean_one_does_not
      patch = Testing.patch("Q-06")
      live = Store::Check.record(patch, checked_on: Testing::TODAY, resprouts: 5, missed: 2, seedlings: 11,
                                 cover_class: 1)

      assert_in_delta 100 * 59 / 64.0, live.control.percent
      assert_equal "regrowing", patch.reload.state
      assert_equal ["Treat again: 5 alive, 2 missed, 11 seedlings"],
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

    def test_two_people_cannot_overwrite_each_other
      mine, theirs = Array.new(2) { Testing.patch("Q-01") }
      theirs.update(stems: 50)

      assert_raises(Sequel::NoExistingObject) { mine.update(stems: 60) }
      assert_equal 50, mine.reload.stems
    end

    def test_infested_is_measured_or_estimated_never_both
      patch = Testing.patch("Q-05")

      assert_equal [patch.gross_m2 * 0.625, :estimated], patch.infested
      patch.update(infested_m2: 900.0)

      assert_equal [900.0, :measured], patch.infested
      assert_operator patch.gross_m2, :>, 900
    end

    def test_the_demo_is_true_to_its_scenario
      area = @property.boundary.shape.area

      assert_in_delta 840_000, area, 5 # corners are kept to seven decimals, about a centimetre
      assert_operator Store::Patch.count, :>=, 20
      assert_equal Core::Recheck::PatchLife::STATES.sort, Store::Patch.distinct.select_order_map(:state)
      assert_in_delta 0.0, Testing.patch("P-02").water_m
      assert_equal "regrowing", Testing.patch("Q-02").state
    end

    def test_an_older_file_is_backed_up_and_brought_up_to_date
      Dir.mktmpdir do |dir|
        file = File.join(dir, "old.db")
        script = <<~RUBY
          require "./thistle"
          Thistle::Store::Database.open(ARGV[0])
          Sequel::Model.db[:settings].insert(key: "kept", value: "yes")
          Sequel::Model.db[:schema_info].update(version: 0) if ARGV[1] == "age"
          puts Sequel::Model.db[:settings].where(key: "kept").get(:value)
        RUBY
        run = ->(*args) { IO.popen([RbConfig.ruby, "-e", script, file, *args], chdir: ROOT, err: File::NULL, &:read) }

        assert_equal "yes\n", run.call("age")
        run.call # the schema says 0: a copy is made before anything is touched

        assert_equal 1, Dir["#{file}.before-*"].size
        assert_equal "yes", SQLite3::Database.new(Dir["#{file}.before-*"].first)
                                             .get_first_value("SELECT value FROM settings WHERE key = 'kept'")
      end
    end
  end
end
