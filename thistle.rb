# frozen_string_literal: true

require "date"
require "zeitwerk"

# Knowledge and views are UTF-8, whatever the machine's locale says.
Encoding.default_external = Encoding::UTF_8
# What PROJ does not know is said to whoever asked for it, not to the log.
ENV["PROJ_DEBUG"] ||= "0"

# Nimble Thistle: what is it, what do I do to it here and today, what do I need, when do I come back?
module Thistle
  ROOT = __dir__

  # The rooms of the house; each folder at the top is a namespace.
  module Core; end
  module Store; end
  module Formats; end
  module StandIns; end
  module Web; end
  module Demo; end

  LOADER = Zeitwerk::Loader.new.tap do |loader|
    { "core" => Core, "store" => Store, "formats" => Formats, "stand_ins" => StandIns, "web" => Web, "demo" => Demo }
      .each { |folder, namespace| loader.push_dir("#{ROOT}/#{folder}", namespace:) }
    loader.inflector.inflect("geojson" => "GeoJSON", "kml" => "KML", "gpx" => "GPX", "nmea" => "NMEA",
                             "mbtiles" => "MBTiles")
    loader.ignore("#{ROOT}/store/migrations", "#{ROOT}/web/views", "#{ROOT}/web/plots", "#{ROOT}/web/assets")
    # Models of every room stand in one namespace.
    loader.collapse("#{ROOT}/store/{identify,survey,season,decide,mix,work,recheck,replant,records,accounts,pocket}")
    loader.setup
  end
end
