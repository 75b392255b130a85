# frozen_string_literal: true

module Thistle
  # Drawing on the survey's map, and what a form then holds.
  module Drawing
    def geometry(form) = JSON.parse(form.find("[name=geometry]", visible: :all).value)
    def area(geometry) = Core::Survey::Shape.new(geometry).area

    # Corners in pixels from the middle of the map; a tool's button starts it.
    def draw(tool, *corners, within: page)
      within.find("[data-shape=#{tool}]").click
      corners << corners.first unless tool == "line"
      map = find("#map").native
      corners.each { |x, y| page.driver.browser.action.move_to(map, x, y).click.perform }
      page.driver.browser.action.move_to(map, *corners.last).click.perform if tool == "line"
    end

    def open(summary)
      find("summary", text: summary).click
      find("details[open]", text: summary)
    end
  end
end
