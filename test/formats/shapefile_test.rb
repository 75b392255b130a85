# frozen_string_literal: true

require "open3"
require "test_helper"
require "zip"

module Thistle
  # Shapefiles that GDAL wrote, in several projections; what is missing from the zip is said.
  class ShapefileTest < Minitest::Test
    RING = [[-91.404, 38.003], [-91.403, 38.003], [-91.403, 38.004], [-91.404, 38.004], [-91.404, 38.003]].freeze
    HOLE = [[-91.4037, 38.0033], [-91.4033, 38.0033], [-91.4033, 38.0037], [-91.4037, 38.0037],
            [-91.4037, 38.0033]].freeze
    ELSEWHERE = [[-91.414, 38.003], [-91.413, 38.003], [-91.413, 38.004], [-91.414, 38.003]].freeze
    SHAPES = { "polygon" => [["Polygon", [RING, HOLE]], ["MultiPolygon", [[RING], [ELSEWHERE]]]],
               "line" => [["LineString", RING.first(3)]], "point" => [["Point", RING.first]] }.freeze

    # {name => bytes} of a shapefile by GDAL; skipped where that is not installed.
    def written(shapes, *how)
      skip "gdal-bin is not installed" unless system("which ogr2ogr > /dev/null")
      Dir.mktmpdir do |folder|
        features = shapes.each_with_index.map do |(type, coordinates), n|
          { type: "Feature", properties: { code: "S#{n}", plant: "Érable", cover: 25.5 },
            geometry: { type:, coordinates: } }
        end
        File.write("#{folder}/in.geojson", JSON.generate(type: "FeatureCollection", features:))
        system("ogr2ogr", *how, "#{folder}/out.shp", "#{folder}/in.geojson", exception: true)
        Dir["#{folder}/out.*"].to_h { |path| ["walk/#{File.basename(path)}", File.binread(path)] }
      end
    end

    def zipped(files)
      Zip::OutputStream.write_buffer do |zip|
        files.each do |name, bytes|
          zip.put_next_entry(name)
          zip.write(bytes)
        end
      end.string
    end

    def test_every_shape_in_every_projection_lies_where_it_was
      [[], %w[-t_srs EPSG:32615], %w[-t_srs EPSG:3857], %w[-t_srs EPSG:4269]].each do |how|
        SHAPES.each_value do |shapes|
          found = Formats::Reader.read(zipped(written(shapes, *how, "-lco", "ENCODING=UTF-8")))

          assert_equal shapes.map(&:first), found.map { |one| one.geometry["type"] }
          shapes.zip(found).each do |(_, coordinates), one|
            was, now = [coordinates, one.geometry["coordinates"]].map { |list| list.flatten.each_slice(2).sort.flatten }
            was.zip(now).each { |a, b| assert_in_delta a, b, 2e-5, how.join(" ") } # NAD83 lies a metre off
            assert_equal %w[Érable 25.5], one.properties.values_at("plant", "cover")
          end
        end
      end
    end

    def test_what_is_missing_is_said
      files = written(SHAPES["point"], "-t_srs", "EPSG:32615")
      { "shx" => /.shx of out is missing/, "prj" => /no .prj/ }.each do |part, words|
        assert_match words, refused(files.reject { |name, _| name.end_with?(".#{part}") })
      end
      assert_match(/not known here/, refused(files.merge("walk/out.prj" => "PROJCS[\"moon\"")))
      degrees = written(SHAPES["point"]).reject { |name, _| name.end_with?(".prj") }

      assert_equal 1, Formats::Reader.read(zipped(degrees)).size
    end

    # Cut off or spoilt anywhere, it is refused in words or read.
    def test_spoilt_files_break_nothing
      files, random = written(SHAPES["polygon"]), Random.new(7)
      60.times do
        name = files.keys.grep(/shp|shx|dbf/).sample(random:)
        bytes = files[name].dup
        if random.rand < 0.5
          bytes = bytes[0,
                        random.rand(bytes.size)]
        else
          bytes.setbyte(random.rand(bytes.size),
                        random.rand(256))
        end
        begin
          assert_kind_of Array, Formats::Reader.read(zipped(files.merge(name => bytes)))
        rescue Core::BadInput => e
          assert_match(/\A[A-Z].*\.\z/, e.message)
        end
      end
    end

    private

    def refused(files) = assert_raises(Core::BadInput) { Formats::Reader.read(zipped(files)) }.message
  end
end
