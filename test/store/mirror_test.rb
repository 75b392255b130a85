# frozen_string_literal: true

require "support/web"
require "support/postgres"

module Thistle
  # A mirror in a real PostgreSQL with PostGIS: whole, then only what changed; stopped anywhere, it goes on.
  class MirrorTest < RackTest
    def setup
      super
      @server = Postgres.start or skip "postgresql and PostGIS are not installed"
    end

    def teardown
      Store::Mirror.forget
      @there&.disconnect
      @server&.stop
      Testing.demo(fresh: true)
    end

    def mirror(*prefixes, **how) = Store::Mirror.new(@server.url, prefixes:, **how).call
    def there = @there ||= Sequel.connect(@server.url)
    def table(name) = there[Sequel.qualify(:thistle, name)]
    def here(name) = Sequel::Model.db[name]

    # Ids that the mirror should hold of a table, for all properties.
    def assert_alike
      Store::Mirror::TABLES.each do |name, told|
        key = name.to_sym
        assert_equal here(key).select_order_map(:id), table(key).select_order_map(:id), name
        columns = told["columns"].select { |_, type| %w[text bigint integer].include?(type) }.keys.map(&:to_sym)
        assert_equal here(key).order(:id).select_map(columns), table(key).order(:id).select_map(columns), name
      end
    end

    def test_it_is_whole_then_takes_over_what_changed
      first = mirror
      assert_alike
      assert_equal here(:patches).count, first["patches"]
      assert_empty mirror, "nothing changed"

      patch = Store::Patch.first(code: "Q-01")
      patch.update(note: "changed")
      Store::Check.record(patch, checked_on: Testing::TODAY, resprouts: 2, missed: 0, seedlings: 0)
      here(:tasks).where(id: here(:tasks).max(:id)).delete
      again = mirror

      assert_equal 1, again["checks"]
      assert_operator again.values.sum, :<, 60, "only what changed"
      assert_alike
      Store::Patch.first(code: "Q-02").update(note: "again")
      mirror(rebuild: true)
      assert_alike
    end

    # PostGIS measures the same ground as we do, by its own geodesic.
    def test_shapes_are_geometries_that_postgis_measures
      mirror
      areas = there.fetch("SELECT id, ST_Area(shape::geography) AS m2 FROM thistle.patches " \
                          "WHERE ST_GeometryType(shape) = 'ST_Polygon'").as_hash(:id, :m2)

      assert_operator areas.size, :>, 20
      areas.each { |id, m2| assert_in_delta here(:patches).where(id:).get(:gross_m2), m2, m2 * 1e-4 }
      near = there.fetch("SELECT count(*) AS n FROM thistle.patches p JOIN thistle.zones z " \
                         "ON z.copy = p.copy AND ST_DWithin(p.shape::geography, z.shape::geography, 30)").first

      assert_operator near[:n], :>, 0
    end

    def test_only_chosen_properties_and_nothing_of_people
      mirror("Q")
      assert_equal [Store::Property.first(prefix: "Q").id], table(:properties).select_map(:id)
      assert_equal [Store::Property.first(prefix: "Q").id], table(:patches).distinct.select_map(:property_id)
      mirror
      assert_alike
      columns = there.schema(Sequel.qualify(:thistle, :treatments)).map(&:first)

      assert_empty columns & %i[applicator licence_number people_ids]
      refute_includes there.tables(schema: "thistle"), :people
      assert_raises(Store::Mirror::Refused) { mirror("nothing") }
      assert_raises(Store::Mirror::Refused) { Store::Mirror.new("postgres://localhost:1/nowhere") }
    end

    # Broken off within any batch, it goes on where it was.
    def test_it_may_be_stopped_at_any_moment
      mirror
      codes = %w[Q-01 Q-02 Q-03 Q-04 Q-05 Q-06 Q-07]
      codes.each { |code| Store::Patch.first(code:).update(note: "round #{code}") }
      [0, 1, 1].each do |left|
        run = Store::Mirror.new(@server.url)
        run.define_singleton_method(:put) do |name, rows|
          left -= 1
          left.negative? ? raise(Interrupt) : super(name, rows)
        end
        stub_batch(2) { assert_raises(Interrupt) { run.call } }
      end
      mirror
      assert_alike
      # two groups in one engine
      here(:settings).where(key: "copy").update(value: other = SecureRandom.uuid)
      mirror
      assert_equal 2, table(:copies).count
      assert_equal here(:patches).count, table(:patches).where(copy: other).count
    end

    private

    def stub_batch(size)
      old = Store::Mirror::BATCH
      Store::Mirror.send(:remove_const, :BATCH)
      Store::Mirror.const_set(:BATCH, size)
      yield
    ensure
      Store::Mirror.send(:remove_const, :BATCH)
      Store::Mirror.const_set(:BATCH, old)
    end
  end
end
