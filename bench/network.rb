# frozen_string_literal: true

require "sequel"
require_relative "../thistle"
require_relative "../test/support/postgres"

module Thistle
  # A network’s engine: LANDS × PATCHES small patches laid into the mirror's own tables by PostgreSQL, then what an
  # analyst asks: one group, one box of the map, all of it by plant, the plant nearest to a place. For docs/growing.md;
  # not part of `rake bench`, since it takes minutes and gigabytes.
  #
  #   LANDS=1000 PATCHES=20000 bundle exec ruby bench/network.rb
  class NetworkBench
    GROUPS, PATCHES = Integer(ENV.fetch("LANDS", "100")), Integer(ENV.fetch("PATCHES", "20000"))
    PLANTS = Core::Knowledge.shipped.invaders.first(40).map(&:key).freeze

    def initialize(folder)
      @server = Postgres.start or abort "postgresql and PostGIS are not installed"
      @db = Sequel.connect(@server.url)
      Store::Database.open("#{folder}/thistle.db")
      Store::Mirror.lay_out(@db)
    end

    def run
      say("laying #{GROUPS} groups × #{PATCHES} patches", clock { lay })
      say("ANALYZE", clock { @db.run("ANALYZE thistle.patches") })
      size = @db.get(Sequel.lit("pg_total_relation_size('thistle.patches')"))
      puts format("%-60s %8.1f GB", "on disk, with both indexes", size / 1e9)
      { "one group's open patches by plant" => one_group, "a box of 10 km on the map" => box,
        "every group, hectares by plant" => by_plant, "the ten nearest patches of a plant" => nearest }
        .each { |words, sql| say words, Array.new(3) { clock { @db.fetch(sql).all } }.min }
    ensure
      @db&.disconnect
      @server&.stop
    end

    private

    def say(words, seconds) = puts(format("%-60s %8.3f s", words, seconds))

    def clock
      from = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      yield
      Process.clock_gettime(Process::CLOCK_MONOTONIC) - from
    end

    # Groups lie 60 km apart over a continent; a patch is a square of some 20 m.
    def lay
      plants = PLANTS.map { |key| "'#{key}'" }.join(",")
      @db.run("DROP INDEX thistle.patches_shape")
      @db.run(<<~SQL)
        INSERT INTO thistle.patches (copy, id, property_id, code, plant_key, state, seen_on, gross_m2, stems, shape)
        SELECT md5(g::text)::uuid, p, 1, 'P-' || p, (ARRAY[#{plants}])[1 + (p % #{PLANTS.size})],
          (ARRAY['standing','hit','regrowing','quiet'])[1 + (p % 4)], date '2026-05-01' - (p % 900), 400, p % 300,
          ST_SetSRID(ST_Expand(ST_MakePoint(-120 + (g % 40) * 1.2 + random() * 0.4, 26 + (g / 40) * 0.9 + random() * 0.4),
            0.0001), 4326)
        FROM generate_series(0, #{GROUPS - 1}) g, generate_series(1, #{PATCHES}) p
      SQL
      @db.run("CREATE INDEX patches_shape ON thistle.patches USING gist (shape)")
    end

    def one_group
      "SELECT plant_key, count(*), sum(gross_m2) FROM thistle.patches WHERE copy = md5('#{GROUPS / 2}')::uuid " \
        "AND state <> 'closed' AND deleted_at IS NULL GROUP BY 1"
    end

    def box
      g = GROUPS / 2
      lon, lat = -120 + ((g % 40) * 1.2) + 0.2, 26 + ((g / 40) * 0.9) + 0.2
      "SELECT copy, id, plant_key, ST_AsGeoJSON(shape) FROM thistle.patches WHERE shape && " \
        "ST_MakeEnvelope(#{lon}, #{lat}, #{lon + 0.11}, #{lat + 0.09}, 4326) LIMIT 2000"
    end

    def by_plant = "SELECT plant_key, state, count(*), sum(gross_m2) / 10000 FROM thistle.patches GROUP BY 1, 2"

    def nearest
      "SELECT copy, id FROM thistle.patches WHERE plant_key = '#{PLANTS[3]}' " \
        "ORDER BY shape <-> ST_SetSRID(ST_MakePoint(-100, 38), 4326) LIMIT 10"
    end
  end
end

Dir.mktmpdir { |folder| Thistle::NetworkBench.new(folder).run } if $PROGRAM_NAME == __FILE__
