# frozen_string_literal: true

require "support/browser"
require "support/drawing"

module Thistle
  # Files, searched ground, zones and base layers.
  class SurveyFilesBrowserTest < BrowserTest
    include Drawing

    # A table with words of its own: mapped, looked at, taken with a bar, taken back.
    def test_a_table_is_mapped_looked_at_taken_and_taken_back
      Dir.mktmpdir do |dir|
        path = File.join(dir, "crew.csv")
        File.write(path, "Where;Lat;Lon;Weed;How many\nA;38,0031;-91,4033;Garlic " \
                         "mustard;12\nB;38,0032;-91,4033;Unheard-of " \
                         "weed;3\nC;91,5;-91,4;caltrop;1\nA;38,01;-91,41;caltrop;1\n")
        visit "/survey/files"
        attach_file "file", path
        click_button "Look at it"

        assert_selector ".verdict-tab", text: /3\s+would be added/
        assert_selector ".verdict-tab", text: /1\s+would be refused/
        assert_text "C"
        select "code", from: "Ours for Where"
        select "stems counted", from: "Ours for How many"
        click_button "Preview again"

        assert_selector ".verdict-tab", text: /2\s+would be refused/
        assert_text "its code A stands in row 1 already"
        find(".verdict-tab", text: /2\s+would be added/).click

        assert_text "plant “Unheard-of weed” was not understood"
        click_button "Import 2 rows"

        assert_text "See them on the map"
        assert_equal ["garlic_mustard", 12, "reported"],
                     Store::Patch.live[code: "A"].then { |p| [p.plant_key, p.stems, p.state] }
        click_button "Take it all back"

        assert_text "was taken back: all of it"
        assert_nil Store::Patch.live[code: "A"]
        attach_again = Store::Mapping.for(["Weed", "Where", "How many"], {})

        assert_equal "stems", attach_again["How many"].to_s, "the mapping is remembered"
      end
    end

    def test_searched_ground_and_zones
      visit "/survey/searches"

      assert_selector ".stops li", minimum: 3
      assert_text(/from the trail|on the trail/i)
      form = open("Record ground that was searched").find("form")
      draw "line", [-100, 60], [100, 80], within: form
      form.fill_in "Width that you searched along a track (both sides)", with: "15"
      form.click_button "Keep this search"

      assert_text "Choose the plants that you searched for"
      form = find("details[open]", text: "Record ground").find("form")
      form.first("label", text: "Tree-of-heaven").click
      form.click_button "Keep this search"

      assert_text "1 absence on record"
      assert_text "Tree-of-heaven: not on the"

      visit "/survey/zones"
      form = open("New zone").find("form")
      draw "area", [-120, 40], [-60, 40], [-60, 90], [-120, 90], within: form
      form.select "no-spray zone", from: "Kind"
      form.fill_in "Distance to keep", with: "30"
      form.fill_in "Name", with: "Bee yard"
      form.click_button "Add zone"

      assert_text "Bee yard is on the map"
      find("tr", text: "Bee yard").click_button("Take off")

      assert_text "Bee yard was taken off the map"
      click_button "Undo"

      assert_text "Bee yard is back"
      assert_empty complaints
    end

    # Ground of one's own: a grid in metres asks for its projection, a picture is laid on its corners, tiles come out of
    # the file.
    def test_base_layers
      Dir.mktmpdir do |dir|
        grid = "#{dir}/dem.asc"
        heights = Array.new(30) { |row| Array.new(30) { |column| row + column }.join(" ") }
        File.write(grid, ["ncols 30", "nrows 30", "xllcorner 640000", "yllcorner 4206000", "cellsize 20",
                          *heights].join("\n"))
        visit "/survey/layers"
        attach_file "layer-file", grid
        click_button "Put it under the map"

        assert_text "is not in degrees"
        attach_file "layer-file", grid
        find("summary", text: "For a picture").click
        fill_in "Projection, if not in degrees", with: "EPSG:32615"
        click_button "Put it under the map"

        assert_text "dem.asc is on the map"
        picture = "#{dir}/air.png"
        ChunkyPNG::Image.new(40, 30, ChunkyPNG::Color.rgb(120, 150, 90)).save(picture)
        File.write("#{dir}/air.pgw", "0.0001\n0\n0\n-0.0001\n-91.404\n38.004\n")
        attach_file "layer-file", picture
        find("summary", text: "For a picture").click
        attach_file "world", "#{dir}/air.pgw"
        click_button "Put it under the map"

        assert_text "air.png is on the map"
        assert_selector "img.leaflet-image-layer[src$='/picture']", visible: :all
        find("label", text: "air.png").click

        assert_no_selector "img.leaflet-image-layer[src$='/picture']", visible: :all
        fill_in "Address with", with: "http://plain.example/{z}"
        click_button "Keep"

        assert_text "begins with https://"
      end
      assert_empty complaints
    end
  end
end
