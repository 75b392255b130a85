# frozen_string_literal: true

source "https://rubygems.org"

ruby ">= 3.1"

gem "argon2", "~> 2.3" # passwords
gem "bootsnap", "~> 1.18", require: false # what was read of Ruby once is not read again
gem "caxlsx", "~> 4.2" # workbooks out
gem "chunky_png", "~> 1.4" # draws hill-shade
gem "css_parser", ">= 1.22", "< 3" # for prawn-svg
gem "csv", "~> 3.3"               # tables and Darwin Core
gem "dry-validation", "~> 1.10"   # reads and checks what people type
gem "erubi", "~> 1.13"            # escapes every <%= %>
gem "exifr", "~> 1.4"             # reads when and where a photograph was taken
gem "highs", "~> 0.2"             # solves the season plan
gem "icalendar", "~> 2.10" # calendars out
gem "json_schemer", "~> 2.4" # checks knowledge/ at boot
gem "mail", "~> 2.8" # letters to people with accounts
gem "matrix", "~> 0.4" # eigenvalues
gem "nokogiri", "~> 1.18" # reads KML and GPX
gem "numo-narray", "~> 0.9" # many futures at once
gem "pg", "~> 1.5" # the mirror for a network
gem "prawn", "~> 2.5" # the card and the records as PDF
gem "prawn-svg", "~> 0.40"
gem "prawn-table", "~> 0.2"
gem "puma", "~> 6.6"
gem "rack", "~> 3.1"
gem "rack-protection", "~> 4.2"
gem "rackup", "~> 2.2"
gem "rake", "~> 13.2"
gem "rgeo", "~> 3.0"              # GEOS: validity, repair, distance, overlay
gem "rgeo-geojson", "~> 2.2"
gem "rgeo-proj4", "~> 4.0"        # a metric projection for each property
gem "rgeo-shapefile", "~> 3.1"    # zipped shapefiles as they come
gem "roda", "~> 3.80" # carries rodauth
gem "rodauth", "~> 2.36" # signing in
gem "roo", "~> 2.10" # spreadsheets in
gem "rotp", "~> 6.3" # codes of a phone
gem "rqrcode", ">= 2.2", "< 4" # the drawing that a phone reads
gem "rubyzip", ">= 2.4", "< 4" # KMZ and Darwin Core archives
gem "sequel", "~> 5.80"
gem "sinatra", "~> 4.2"
gem "sqlite3", "~> 2.0"
gem "tzinfo", "~> 2.0" # the clock of a place, with daylight saving
gem "tzinfo-data", "~> 1.2025" # its rules, shipped: the machine may have none
gem "webauthn", "~> 3.4" # passkeys
gem "zeitwerk", "~> 2.6"

group :test do
  gem "axe-core-capybara", "~> 4.10"
  gem "capybara", "~> 3.40"
  gem "minitest", "~> 5.25"
  gem "rack-test", "~> 2.1"
  gem "rubocop", "~> 1.75", require: false
  gem "rubocop-minitest", "~> 0.38", require: false
  gem "rubocop-performance", "~> 1.25", require: false
  gem "rubocop-sequel", "~> 0.4", require: false
  gem "selenium-webdriver", "~> 4.32"
  gem "simplecov", "~> 0.22", require: false
end
