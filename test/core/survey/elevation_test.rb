# frozen_string_literal: true

require "open3"
require "test_helper"

module Thistle
  class ElevationTest < Minitest::Test
    SIDE = 40

    def heights
      Array.new(SIDE) do |r|
        Array.new(SIDE) do |c|
          (150 + (30 * Math.sin(c / 5.0)) + (22 * Math.cos((r + (c / 2.0)) / 7.0)) + (0.4 * r)).round(2)
        end
      end
    end

    def grid(rows = heights, west: 640_000, south: 4_206_000, cell: 10)
      head = ["ncols #{SIDE}", "nrows #{SIDE}", "xllcorner #{west}", "yllcorner #{south}", "cellsize #{cell}",
              "NODATA_value -9999"]
      [*head, *rows.map { |row| row.join(" ") }, ""].join("\n")
    end

    # CHECKS.md, Geometry: Horn (1981); the outside reference is gdaldem (Debian gdal-bin), run here.
    def gdaldem(what, text, *options)
      Dir.mktmpdir do |dir|
        File.write("#{dir}/dem.asc", text)
        _, said, status = Open3.capture3("gdaldem", what, "#{dir}/dem.asc", "#{dir}/tif", *options)

        assert_predicate status, :success?, said
        system("gdal_translate", "-q", "-of", "AAIGrid", "#{dir}/tif", "#{dir}/out.asc", exception: true)
        File.readlines("#{dir}/out.asc").grep(/\A\s*-?\d/).map { |line| line.split.map(&:to_f) }
      end
    end

    def test_slope_aspect_and_shade_against_gdaldem
      text = grid
      ours = Formats::EsriGrid.read(text, crs: "EPSG:32615")
      slope, aspect, shade = gdaldem("slope", text), gdaldem("aspect", text), gdaldem("hillshade", text)
      (1...(SIDE - 1)).to_a.product((1...(SIDE - 1)).to_a).each do |row, column|
        steep, faces = ours.lie_at(column, row)

        assert_in_delta slope[row][column], steep, 0.01
        turn = (aspect[row][column] - faces).abs

        assert_operator [turn, 360 - turn].min, :<, 0.05
        assert_in_delta shade[row][column], ours.shades[(row * SIDE) + column], 2 if row == 20
      end

      assert_nil ours.lie_at(0, 5)
    end

    # A plane that rises 1 in 10 toward the north lies at 5.71° and faces south, in degrees as in metres.
    def test_a_patch_on_a_plane_in_degrees
      cell = 1.0 / 11_000
      metres = Core::Survey::Geodesic.distance([-91.4, 38.0], [-91.4, 38.0 + cell])
      rows = Array.new(SIDE) { |r| Array.new(SIDE, ((SIDE - r) * metres / 10).round(4)) }
      elevation = Formats::EsriGrid.read(grid(rows, west: -91.4, south: 38.0, cell:))
      ring = [[5, 5], [20, 5], [20, 18], [5, 18], [5, 5]].map { |x, y| [-91.4 + (x * cell), 38.0 + (y * cell)] }
      lie = elevation.lie(Core::Survey::Shape.new("type" => "Polygon", "coordinates" => [ring]))

      assert_in_delta Math.atan(0.1) * 180 / Math::PI, lie.slope, 0.01
      assert_equal ["south", "flat", 15 * 13], [lie.faces, lie.kind, lie.cells]
    end

    def test_a_gap_is_no_slope_rather_than_a_cliff
      rows = heights
      rows[10][10] = -9999
      elevation = Formats::EsriGrid.read(grid(rows), crs: "EPSG:32615")

      assert_equal 1, elevation.gaps
      assert_nil elevation.lie_at(11, 11)
      refute_nil elevation.lie_at(12, 12)
      assert_nil elevation.shades[(11 * SIDE) + 11]
    end

    # Every corner of a contour lies at its height, by interpolation between the cells; and none is lost or doubled.
    def test_contours_lie_at_their_height
      elevation = Formats::EsriGrid.read(grid, crs: "EPSG:32615")
      lines = elevation.contours(10)
      low, high = elevation.range

      assert_equal (((low / 10).floor + 1)..(high / 10).floor).map { |n| n * 10 }, lines.map(&:first).uniq.sort
      assert(lines.all? { |_, line| line.size > 1 })
      flat = Formats::EsriGrid.read(grid(Array.new(SIDE) { |r| Array.new(SIDE, r) }), crs: "EPSG:32615")
      level, line = flat.contours(39.5).find { |height, _| height.zero? } || flat.contours(20).first

      assert_equal SIDE, line.size, "one straight line from side to side at #{level}"
      assert_match(/more than 200/, assert_raises(Core::BadInput) { elevation.contours(0.1) }.message)
    end

    def test_grids_that_are_not
      { grid.sub(" 640000", " nowhere") => /no number after xllcorner/, grid.lines.first(20).join => /breaks off/,
        grid.sub("ncols 40", "ncols 0") => /does not say its ncols/,
        "#{grid} 7" => /more heights/, grid.sub(/150\S*/, "abc") => /where a height should be/,
        grid.sub("ncols 40", "ncols 400000") => /million cells/ }.each do |text, message|
        assert_match message, assert_raises(Core::BadInput) { Formats::EsriGrid.read(text, crs: "EPSG:32615") }.message
      end
      assert_match(/not in degrees/, assert_raises(Core::BadInput) { Formats::EsriGrid.read(grid) }.message)
      assert_match(/not a projection/,
                   assert_raises(Core::BadInput) { Formats::EsriGrid.read(grid, crs: "EPSG:99") }.message)
    end
  end
end
