# frozen_string_literal: true

require "support/reading"
require "support/walker"

module Thistle
  # Every page is read as people read it (support/reading.rb): the demo's, and those of a land on which nothing is yet.
  class WebWordsTest < RackTest
    def test_pages_of_the_demo_read_well
      walker = Walker.new(self)
      walker.crawl([*plain(walker), "/season/fit?work=foliar"])

      assert_empty faults(walker.gets.flat_map(&:paths).uniq.sort)
    end

    def test_pages_of_an_empty_land_read_well
      send_form :post, "/records/properties", name: "New ground", prefix: "NG", units: "metric", texture: "loam",
                                              latitude: "54.5", longitude: "-3.1"
      walker = Walker.new(self)
      pages = plain(walker).map { |path| "#{path}?at=#{Store::Property.max(:id)}" }

      assert_empty faults(pages)
    end

    private

    def plain(walker) = walker.gets.select(&:plain?).map { |door| door.pattern.to_s }

    # ["what is wrong: the text, where"] of pages.
    def faults(paths)
      read = 0
      found = paths.each_with_object({}) do |path, all|
        get path
        next unless last_response.status == 200 && last_response.media_type == "text/html"

        read += 1
        property = Store::Property[last_request.session["property"]] || Store::Property.order(:id).first
        Reading.new(last_response.as_sent, units: property.units).faults.each { |fault| all[fault] ||= path }
      end
      assert_operator read, :>, 25, "pages"
      found.map { |fault, path| "#{fault} (#{path})" }
    end
  end
end
