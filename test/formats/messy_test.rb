# frozen_string_literal: true

require "caxlsx"
require "csv"
require "support/web"

module Thistle
  # Workbooks as people keep them, drawn by lot from every kind of mess that we know of: headings, order, dates,
  # places, names, numbers, empty rows, titles, separators, encodings. Nothing is lost, nothing is invented: a cell is
  # read as it was meant. Each is loaded twice and taken back once. MESSES=all draws all fifty, and the forty that
  # were kept aside while the readers were written; without it every fifth of them.
  class MessyTest < RackTest
    STEP = ENV["MESSES"] == "all" ? 1 : 5
    SEEDS, KEPT_ASIDE = (1..50).step(STEP), (9001..9040).step(STEP)
    Meant = Struct.new(:code, :plant, :on, :stems, :cover, :note, :lat, :lon, keyword_init: true)
    PLANTS = %w[garlic_mustard amur_honeysuckle tree_of_heaven japanese_barberry spotted_knapweed].freeze

    HEADS = {
      code: ["Ref.", "Patch ID", "site", "CODE", "Reference"],
      plant: ["Plant", "Species", "Plant (common)", "Scientific name", "Weed", "Invasive plant"],
      on: ["Date", "Date found", "Date_Seen", "Observed on", "Survey date", "WHEN"],
      stems: ["Stems", "No. of stems", "Stem count", "Count"],
      cover: ["Cover %", "% cover", "percent_cover", "Canopy"],
      note: %w[Notes Comment Remarks Description]
    }.freeze
    PLACES = {
      degrees: [%w[Lat Long], ->(m) { [m.lat.to_s, m.lon.to_s] }],
      comma: [%w[Latitude Longitude], ->(m) { [m.lat, m.lon].map { |one| one.to_s.tr(".", ",") } }],
      worded: [["Lat.", "Long."], ->(m) { [MessyTest.dms(m.lat, "N", "S"), MessyTest.dms(m.lon, "E", "W")] }],
      one: [["Position"], ->(m) { ["#{m.lat}, #{m.lon}"] }],
      wkt: [["WKT"], ->(m) { ["POINT (#{m.lon} #{m.lat})"] }]
    }.freeze
    # Dates by how they are written; those with two readings want an answer.
    DATES = { iso: "%Y-%m-%d", slashes: "%Y/%m/%d", dots: "%d.%m.%Y", words: "%-d %B %Y", short: "%d-%b-%Y",
              american: "%B %-d, %Y", packed: "%Y%m%d", dmy: "%-d/%-m/%Y", mdy: "%-m/%-d/%Y" }.freeze

    def self.dms(degrees, over, under)
      minutes, seconds = ((degrees.abs % 1) * 3600).round(3).divmod(60)
      %(#{degrees.abs.to_i}°#{minutes.to_i}'#{format("%.3f", seconds)}"#{degrees.negative? ? under : over})
    end

    # One mess: what was meant, how it was written, the bytes.
    class Mess
      attr_reader :meant, :dates, :kind

      def initialize(seed)
        @random = Random.new(seed)
        @dates, @place = pick(DATES.keys), pick(PLACES.keys)
        @kind = pick(%i[xlsx csv semicolon tab utf16 latin])
        @place = :degrees if @kind == :csv && @place == :comma
        @meant = Array.new(6) { |n| one(seed, n) }
      end

      def library = Core::Knowledge.shipped

      def bytes
        return book if kind == :xlsx

        mark = { semicolon: ";", tab: "\t" }.fetch(kind, ",")
        text = CSV.generate(col_sep: mark) { |csv| table.each { |row| csv << row } }
        { utf16: -> { "\uFEFF#{text}".encode("UTF-16LE") }, latin: -> { text.encode("ISO-8859-1", undef: :replace) } }
          .fetch(kind) { -> { pick(["", "\uFEFF"]) + text } }.call.b
      end

      private

      def pick(list) = list.to_a.sample(random: @random)

      def one(seed, number)
        Meant.new(code: "M#{seed}-#{number}", plant: pick(PLANTS), on: Date.new(2025, 1, 1) + @random.rand(480),
                  stems: @random.rand(1..400), cover: @random.rand(1..99),
                  note: pick(["by the gate", "steep; wet", "  two words "]),
                  lat: (38.0 + (@random.rand(-40..40) / 10_000.0)).round(5),
                  lon: (-91.4 + ((number + @random.rand) / 2000)).round(5))
      end

      # Rows with their headings, columns in any order, others between, a title and empty rows where a book has them.
      def table
        @table ||= begin
          columns = HEADS.map { |key, names| [pick(names), ->(m) { cell(key, m) }] }
          heads, written = PLACES.fetch(@place)
          heads.each_with_index { |head, n| columns << [head, ->(m) { written.call(m)[n] }] }
          columns << ["Weather", ->(_) { pick(["sunny", "", nil, "12"]) }]
          columns = columns.shuffle(random: @random)
          rows = meant.map { |m| columns.map { |_, text| text.call(m) } }
          rows.insert(@random.rand(rows.size), Array.new(columns.size)) if kind == :xlsx
          [*([["Walk of the year"], []] if kind == :xlsx && pick([true, false])), columns.map(&:first), *rows]
        end
      end

      def cell(key, m)
        case key
        when :plant then pick([library.plant(m.plant).name, library.plant(m.plant).scientific,
                               library.plant(m.plant).name.upcase, " #{library.plant(m.plant).name.downcase} "])
        when :on then m.on.strftime(DATES.fetch(dates))
        when :stems then pick([m.stems.to_s, " #{m.stems} ", "#{m.stems}.0"])
        when :cover then pick([m.cover.to_s, "#{m.cover}%", "#{m.cover} %"])
        else m[key]
        end
      end

      def book
        package = Axlsx::Package.new
        package.workbook.add_worksheet(name: pick(["Sheet1", "2025", "walks & finds"])) do |sheet|
          table.each { |row| sheet.add_row(row, types: row.map { :string }) }
        end
        package.to_stream.read
      end
    end

    def test_every_mess_is_read_as_it_was_meant = SEEDS.each { |seed| assert_read(seed) }
    def test_those_kept_aside_too = KEPT_ASIDE.each { |seed| assert_read(seed) }

    private

    def property = @property ||= Store::Property.first(prefix: "B")

    def draft(mess)
      features = Formats::Reader.read(mess.bytes)
      arrival = Store::Arrival.draft(property, "m.#{mess.kind}", features)
      arrival.update(days: mess.dates.to_s, doubles: "add", outside: "add") if %i[dmy mdy].include?(mess.dates)
      arrival.update(doubles: "add", outside: "add", sure: true)
      arrival.look(seen_on: Date.new(2026, 5, 12), at_once: true)
    end

    def assert_read(seed)
      mess = Mess.new(seed)
      said = "seed #{seed}: #{mess.kind}, #{mess.dates}"
      arrival = draft(mess)

      assert_equal mess.meant.size, arrival.arrival_rows_dataset.count, said
      arrival.take(seen_on: Date.new(2026, 5, 12), at_once: true)
      mess.meant.each do |one|
        assert_meant(one, Store::Patch.live.first(property_id: property.id, code: one.code), said)
      end
      assert_equal({ "same" => mess.meant.size }, draft(mess).counts, said)
      arrival.refresh.undo

      assert_nil Store::Patch.live.first(property_id: property.id, code: mess.meant.first.code), said
      Store::Patch.where(arrival_id: arrival.id).delete
    end

    def assert_meant(one, patch, said)
      refute_nil patch, "#{said}: #{one.code} is lost"
      lon, lat = patch.shape.centre

      assert_equal [one.plant, one.on, one.stems, one.cover.to_f, one.note.strip],
                   patch.values.values_at(:plant_key, :seen_on, :stems, :cover_percent, :note), "#{said}: #{one.code}"
      assert_in_delta one.lat, lat, 2e-6, said
      assert_in_delta one.lon, lon, 2e-6, said
    end
  end
end
