# frozen_string_literal: true

require "test_helper"

module Thistle
  # The file: what was acknowledged is safe, and older files come up to date.
  class StoreDatabaseTest < Minitest::Test
    def setup
      Testing.demo(fresh: true)
      @db = Sequel::Model.db
      @property = Store::Property.first(prefix: "Q")
      @site = @property.site(Testing::TODAY)
    end

    def test_what_was_acknowledged_is_safe
      pragmas = %w[journal_mode foreign_keys synchronous].map { |name| @db.fetch("PRAGMA #{name}").get }
      assert_equal ["wal", 1, 2], pragmas
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
