# frozen_string_literal: true

require "nokogiri"
require "open3"
require "test_helper"

module Thistle
  # Files out and in again: read by independent programs, and nothing lost on the way round.
  class ExchangeTest < Minitest::Test
    def setup
      Testing.demo(fresh: true)
      @property = Store::Property.first(prefix: "Q")
      # One patch with a hole and a part, so that every format has to carry them.
      @odd = Testing.patch("Q-04")
      ring = ->(x, y, w) { [[x, y], [x + w, y], [x + w, y + w], [x, y + w], [x, y]] }
      coordinates = [[ring[-91.4, 38.0, 0.002], ring[-91.3995, 38.0005, 0.0005].reverse], [ring[-91.396, 38.0, 0.001]]]
      @odd.shape = Core::Survey::Shape.new("type" => "MultiPolygon", "coordinates" => coordinates)
      @odd.save
      @line = Testing.patch("Q-09")
      @line.set(radius_m: nil, width_m: 3.0)
      @line.shape = Core::Survey::Shape.new("type" => "LineString",
                                            "coordinates" => [[-91.41, 38.0], [-91.409, 38.0005]])
      @line.save
    end

    def bytes(kind) = Web::Survey::Export.new(@property, kind).bytes

    def draft(bytes, property: @property)
      arrival = Store::Arrival.draft(property, "round.trip", Formats::Reader.read(bytes),
                                     format: Formats::Reader.name(bytes))
      arrival.look(seen_on: Testing::TODAY)
      arrival
    end

    # What goes out comes back the same: every patch known by its code, with nothing to change; and on other ground the
    # same shapes, plants and amounts.
    def test_round_trips_lose_nothing
      other = Store::Property.first(prefix: "B")
      told = ->(patch) do
        columns = %i[plant_key seen_on stems stem_size cover_class width_m radius_m note]
        [patch.shape.published, *patch.values.slice(*columns).values]
      end
      wanted = @property.live_patches.to_h { |patch| [patch.code, told[patch]] }
      %w[geojson kml kmz gpx csv zip].each do |kind|
        file = bytes(kind)
        counts = draft(file).counts

        assert_equal 30 + (kind == "zip" ? absences : 0), counts["same"],
                     "#{kind}: #{counts} " \
                     "#{Store::ArrivalRow.exclude(verdict: "same").reverse(:id).limit(5).select_map(:reason)}"
        arrival = draft(file, property: other)
        arrival.take(seen_on: Testing::TODAY, at_once: true)
        found = arrival.patches.to_h { |patch| [patch.code, told[patch]] }

        wanted.each { |code, facts| assert_equal facts, found[code], "#{kind}, #{code}" }
        assert_equal absences, other.searches_dataset.to_a.sum { |search| search.absences.size } if kind == "zip"
        arrival.undo
        Store::Patch.where(arrival_id: arrival.id).delete
      end
    end

    # CHECKS.md, Software: ogrinfo (Debian gdal-bin) reads what the project writes, and the areas agree.
    def test_ogrinfo_reads_every_file
      area = @property.live_patches.where(id: @odd.id).get(:gross_m2)
      Dir.mktmpdir do |dir|
        { "geojson" => 30, "kml" => 30, "kmz" => 30, "csv" => 30, "gpkg" => 30, "gpx" => 3 }.each do |kind, count|
          path = File.join(dir, "out.#{kind}")
          File.binwrite(path, bytes(kind))
          layer = { "gpx" => "waypoints", "gpkg" => "patches" }[kind]
          out, said, status = Open3.capture3("ogrinfo", "-so",
                                             *(kind == "csv" ? ["-oo", "GEOM_POSSIBLE_NAMES=wkt"] : []), path,
                                             *(layer ? [layer] : ["-al"]))

          assert_predicate status, :success?, said
          assert_includes out, "Feature Count: #{kind == "gpx" ? points : count}", "#{kind}\n#{out}#{said}"
          refute_match(/ERROR|Warning/, said, kind)
        end
        out, = Open3.capture3("ogrinfo", "-q", "-sql", "SELECT ST_Area(geom, 1) AS m2 FROM patches WHERE code = 'Q-04'",
                              "-dialect", "SQLite", File.join(dir, "out.gpkg"))

        assert_in_delta area, out[/m2 \(Real\) = ([\d.]+)/, 1].to_f, area * 1e-4
      end
    end

    # One file holds all of a property: each table as many rows as there are live records, each row of a patch that is
    # there.
    def test_a_geopackage_holds_every_record_by_its_patch
      Dir.mktmpdir do |dir|
        File.binwrite(path = "#{dir}/all.gpkg", bytes("gpkg"))
        db = SQLite3::Database.new(path)
        live = @property.live_patches.unordered.select(:id)
        Web::Survey::Package::RECORDS.each do |name, (model, _)|
          kept = model.columns.include?(:deleted_at) ? { deleted_at: nil } : {}

          assert_equal model.where(patch_id: live, **kept).count, db.get_first_value("SELECT COUNT(*) FROM #{name}"),
                       name
          lost = "SELECT COUNT(*) FROM #{name} WHERE patch_id NOT IN (SELECT patch_id FROM patches)"

          assert_equal 0, db.get_first_value(lost), name
        end
        assert_operator db.get_first_value("SELECT COUNT(*) FROM searches WHERE absent <> ''"), :>, 0
        assert_equal @property.zones.size, db.get_first_value("SELECT COUNT(*) FROM zones")
      end
    end

    def points = @property.live_patches.all.count { |patch| patch.shape.geometry["type"] == "Point" }

    def test_gpx_holds_to_its_schema
      schema = Nokogiri::XML::Schema(File.read("#{ROOT}/test/fixtures/gpx-1.1.xsd"))

      assert_empty schema.validate(Nokogiri::XML(bytes("gpx"))).map(&:message)
    end

    # RFC 7946: longitude first, outlines counter-clockwise and holes clockwise (3.1.6), closed rings, no crs member
    # (4).
    def test_geojson_holds_to_its_rfc
      data = JSON.parse(bytes("geojson"))

      assert_equal %w[type features], data.keys
      data["features"].each do |feature|
        assert_empty feature.keys - %w[type id geometry properties]
        polygons(feature["geometry"]).each do |rings|
          rings.each_with_index do |ring, n|
            turn = ring.each_cons(2).sum { |(x, y), (u, v)| (u - x) * (v + y) }

            assert_equal ring.first, ring.last
            assert_equal n.zero?, turn.negative?, "ring #{n} of #{feature.dig("properties", "code")}"
          end
        end
      end
    end

    # Darwin Core text guide: every row is of an event that is there, every id stands once and is this copy's.
    def test_a_darwin_core_archive_holds_together
      events, there, measured = archived
      ids = events.map { |row| row["eventID"] }

      assert_equal ids.uniq, ids
      assert_empty [there, measured].flat_map { |rows| rows.map { |row| row["eventID"] } }.uniq - ids
      assert_empty events.filter_map { |row| row["parentEventID"] }.uniq - ids
      { "occurrenceID" => there, "measurementID" => measured }.each do |term, rows|
        own = rows.map { |row| row[term] }

        assert_equal own.uniq.size, own.size
        assert(own.all? { |id| id.start_with?("urn:thistle:#{Store::Bundle.copy}:") })
      end
    end

    # Absences with their effort and ground; measurements as the records have them.
    def test_a_darwin_core_archive_tells_what_was_not_there
      events, there, measured = archived
      by_id = events.to_h { |row| [row["eventID"], row] }
      absent = there.select { |row| row["occurrenceStatus"] == "absent" && row["organismID"].nil? }

      assert_equal @property.searches.sum { |search| search.absences.size }, absent.size
      efforts = absent.map { |row| by_id[row["eventID"]].values_at("samplingEffort", "footprintWKT") }

      assert(efforts.all? { |effort, wkt| effort.include?("m2 searched") && wkt.match?(/polygon/i) })
      live = @property.live_patches.unordered.select(:id)
      sums = measured.group_by { |row| row["measurementType"] }
                     .transform_values { |rows| rows.sum { |row| row["measurementValue"].to_f } }
      { "resprouts" => [Store::Check, :resprouts], "hours each" => [Store::Treatment, :hours] }
        .each do |name, (model, column)|
        wanted = model.where(patch_id: live, deleted_at: nil).exclude(column => nil).select_map(column)

        assert_in_delta wanted.sum, sums[name]
      end
    end

    # CHECKS.md, Software: what ogr2ogr writes comes in, in each format.
    def test_files_from_ogr2ogr
      Dir.mktmpdir do |dir|
        File.write("#{dir}/in.geojson", bytes("geojson"))
        drivers = { "CSV" => ["csv", "-lco", "GEOMETRY=AS_WKT"], "GeoJSON" => ["json"], "KML" => ["kml"],
                    "LIBKML" => ["kmz"] }
        drivers.each do |driver, (suffix, *options)|
          path = "#{dir}/out.#{suffix}"
          _, said, status = Open3.capture3("ogr2ogr", "-f", driver, *options, path, "#{dir}/in.geojson")

          assert_predicate status, :success?, said
          features = Formats::Reader.read(File.binread(path))

          assert_equal 30, features.size, driver
          found = features.find { |f| f.properties.value?("Q-04") || f.name == "Q-04" }

          assert_in_delta @odd.gross_m2, Core::Survey::Shape.new(found.geometry).area, @odd.gross_m2 * 1e-4, driver
        end
      end
    end

    def test_tables_as_people_send_them
      { "code;lat;lon;cover\nA;38,001;-91,4;25,5\n" => 25.5,
        "\uFEFFcode,latitude,longitude,cover %\nA,38.001,-91.4,25.5 %\n" => 25.5,
        "code\tdecimalLatitude\tdecimalLongitude\tcover\r\nA\t38.001\t-91.4\t25.5\r\n" => 25.5 }.each do |text, cover|
        [text, text.encode("UTF-16").b].each do |file|
          feature = Formats::Reader.read(file.b).first
          values, = Core::Survey::Columns.read(feature.properties, Core::Survey::Columns.guess(feature.properties.keys),
                                               Core::Knowledge.shipped)

          assert_equal [[-91.4, 38.001], cover], [feature.geometry["coordinates"], values[:cover_percent]], text
        end
      end
      latin = Formats::Reader.read("name,lat,lon\nM\xFChle,38,-91\n".b)

      assert_equal "Mühle", latin.first.name
      row = { "species" => "Alliaria petiolata (M. Bieb.)", "date" => "03/04/2025", "acres" => "0.5" }
      guess = Core::Survey::Columns.guess(%w[species date acres])
      values, notes = Core::Survey::Columns.read(row, guess, Core::Knowledge.shipped)

      assert_equal "garlic_mustard", values[:plant_key]
      assert_in_delta 2023.428, values[:infested_m2], 0.001
      assert_match(%r{date seen “03/04/2025” could be two days}, notes.first)
    end

    # The bad-input list of the issue: each refused or mended with a reason of its own, the rest of the file unharmed.
    def test_bad_rows_are_refused_or_mended_one_by_one
      good = { "type" => "Point", "coordinates" => [-91.39, 38.02] }
      corners = [[-91.4, 38.0], [-91.399, 38.001], [-91.399, 38.0], [-91.4, 38.001], [-91.4, 38.0]]
      bow = { "type" => "Polygon", "coordinates" => [corners] }
      mixed = { "type" => "GeometryCollection",
                "geometries" => [good.merge("coordinates" => [-91.38, 38.03, 210.5]),
                                 { "type" => "LineString", "coordinates" => [[-91.4, 38.01], [-91.4, 38.02]] }] }
      shapes = [good, bow, mixed, { "type" => "Point", "coordinates" => [38.0, -91.4] },
                { "type" => "Point", "coordinates" => [640_000, 4_206_000] },
                { "type" => "LineString", "coordinates" => [[-91, 38], [-91, 38]] }, nil,
                { "type" => "Point", "coordinates" => [-91.30001, 38.02] }]
      features = shapes.each_with_index.map do |geometry, n|
        { type: "Feature", geometry:, properties: { code: n == 7 ? "X-0" : "X-#{n}", species: "garlic mustard" } }
      end
      features << { type: "Feature", geometry: { type: "Point", coordinates: [-91.390001, 38.02] },
                    properties: { code: "X-9", species: "garlic mustard" } }
      arrival = draft(JSON.generate(type: "FeatureCollection", features:))
      said = arrival.arrival_rows.to_h { |row| [row.row, "#{row.verdict}: #{row.reason}"] }

      { 1 => /\Aadd: \z/, 2 => /\Aadd: .*crosses itself near .*repaired/,
        3 => /\Aadd: one of 2 shapes.*heights were left out/, 4 => /refuse: its code X-2 stands in row 3/,
        5 => /refuse: .*look swapped/,
        6 => /refuse: .*not (in )?degrees/, 7 => /refuse: .*no length/, 8 => /refuse: .*no place/,
        9 => /refuse: its code X-0 stands in row 1/, 10 => /double: row 1 is the same plant within 5 m/ }
        .each { |row, words| assert_match words, said[row] }
      arrival.take(seen_on: Testing::TODAY, at_once: true)

      assert_equal %w[X-0 X-1 X-2], arrival.patches.map(&:code).sort
    end

    def test_bombs_and_traps
      bomb = Testing.zip("doc.kml" => "<kml>#{" " * 60_000_000}</kml>")
      trap = %(<?xml version="1.0"?><!DOCTYPE kml [<!ENTITY f SYSTEM "file:///etc/hostname">]><kml>) +
             "<Placemark><name>&f;</name><Point><coordinates>-91,38</coordinates></Point></Placemark></kml>"
      utm = JSON.generate(type: "FeatureCollection",
                          crs: { type: "name", properties: { name: "urn:ogc:def:crs:EPSG::32615" } }, features: [])

      { bomb => /unpacks to more than 48 MB/, trap => /document type/, Testing.zip("a.txt" => "x") => /no KML file/,
        bytes("kmz")[0, 900] => /cut off or damaged/,
        "code,x\nA,1\n" => /no columns of latitude/, "code,lat,lon\n\"A,1,2\n" => /breaks off in line 2/,
        utm => /not in longitude and latitude/, "[#{"[" * 500}" => /not GeoJSON/,
        %({"type":"Feature","geometry":#{"[" * 90}) => /cut off/,
        "$GPGGA,1,2*00\n" => /load it under Walk/ }.each do |file, message|
        assert_match message, assert_raises(Core::BadInput) { Formats::Reader.read(file.b) }.message
      end
    end

    # Small files that would unfold to large ones are refused before they do; a child process tells how much it took.
    def test_nasty_files_stay_under_600_mb
      script = <<~RUBY
        require "./thistle"
        require "zip"
        nasty = [%({"type":"FeatureCollection","features":[\#{"[]," * 15_000_000}[]]}), "<kml>\#{"<a/>" * 5_900_000}</kml>", "lat,lon\n\#{"1,1\n" * 11_000_000}",
                 "lat,lon\n\#{"," * 40_000_000}", Zip::OutputStream.write_buffer { |zip| zip.put_next_entry("doc.kml"); zip.write("<kml>\#{"<a/>" * 5_900_000}</kml>") }.string]
        nasty.size.times do
          Thistle::Formats::Reader.read(nasty.shift)
          abort "it was taken"
        rescue Thistle::Core::BadInput
          GC.start
        end
        print File.read("/proc/self/status")[/VmHWM:\\s+(\\d+)/, 1].to_i / 1024
      RUBY
      out, said, status = Open3.capture3("ruby", "-e", script, chdir: ROOT)

      assert_predicate status, :success?, said
      assert_operator out.to_i, :<, 600
    end

    # NMEA 0183: the checksum is the exclusive or of the bytes between $ and *. The first sentence is the usual textbook
    # one, recalled.
    def test_nmea_checksums_and_fixes
      assert_equal "47", Formats::NMEA.checksum("GPGGA,123519,4807.038,N,01131.000,E,1,08,0.9,545.4,M,46.9,M,,")
      sentence = "$GPGGA,123519,4807.038,N,01131.000,E,1,08,0.9,545.4,M,46.9,M,,*47\r\n"
      fixes = Formats::NMEA.fixes(sentence + sentence.sub("123519", "123520"))

      assert_equal 1, fixes.size, "a wrong checksum is passed over"
      assert_in_delta 48.1173, fixes.first.lat, 1e-6
      assert_in_delta 11.516667, fixes.first.lon, 1e-6
      walk = StandIns::GpsReceiver.new(seed: 3).walk(Testing.patch("Q-01").shape, start: Time.utc(2026, 5, 12, 23, 59))
      again = Formats::NMEA.fixes(Formats::NMEA.write(walk))

      assert_equal walk.size, again.size
      walk.zip(again) do |a, b|
        assert_in_delta 0, Core::Survey::Geodesic.distance([a.lon, a.lat], [b.lon, b.lat]), 0.005
      end
      assert_in_delta walk.last.time - walk.first.time, again.last.time - again.first.time, 0.02
      assert_match(/2 broken sentences/,
                   assert_raises(Core::BadInput) { Formats::NMEA.fixes("$GPGGA,1*00\nnoise\n") }.message)
    end

    def absences = @property.searches.sum { |search| search.absences.size }

    def polygons(geometry)
      { "Polygon" => [geometry["coordinates"]], "MultiPolygon" => geometry["coordinates"] }.fetch(geometry["type"], [])
    end

    private

    # The tables of a Darwin Core archive, events first; the columns of each are the terms of its meta.xml.
    def archived
      files = Formats::Archive.unpack(bytes("zip"))
      meta = Nokogiri::XML(files["meta.xml"]).remove_namespaces!

      assert_equal %w[eml.xml event.txt measurementorfact.txt meta.xml occurrence.txt], files.keys.sort
      %w[event.txt occurrence.txt measurementorfact.txt].map do |name|
        rows = CSV.parse(files[name], col_sep: "\t", headers: true)
        fields = meta.xpath("//*[files/location='#{name}']/field").sort_by { |field| field["index"].to_i }

        assert_equal rows.headers, fields.map { |field| field["term"].split("/").last }, name
        rows
      end
    end
  end
end
