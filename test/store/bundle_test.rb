# frozen_string_literal: true

require "open3"
require "support/web"
require "zip"

module Thistle
  # A property as one file: opened in an empty copy it is the same at every address and writes the same file; among
  # other records each row is known by its id, and what changed in both is asked about. Other copies are other
  # processes.
  class BundleTest < RackTest
    DAY = "2026-05-12"
    # The same application, asked for every page that links lead to, as JSON on its output.
    WALK = <<~RUBY
      app, seen, waiting, cookie = Thistle::Web::App, {}, ["/"], nil
      apart = %r{/identify/(practice|duel)|/progress|seed=|[.](pdf|svg|ics|geojson)|/export|/file|/workbook|/left|[?&]at=
                 |^/(css|js|vendor|img|fonts)/|^/records$|^/records[?]}x
      while (address = waiting.shift) && seen.size < 90
        next if seen.key?(address) || address.match?(apart)
        answer = Rack::MockRequest.new(app).get(address, "HTTP_HOST" => "127.0.0.1", "HTTP_COOKIE" => cookie)
        cookie = answer["set-cookie"][/^[^;]+/] if answer["set-cookie"]
        next unless answer.media_type == "text/html"
        seen[address] = answer.body.gsub(/(csrf" content|authenticity_token" value|once" value)="[^"]*"/, "")
        waiting.concat(answer.body.scan(%r{href="(/[^"#]*)}).flatten.map { |one| CGI.unescapeHTML(one) }.uniq)
      end
      puts JSON.generate(seen)
    RUBY

    def setup
      super
      @folder = Dir.mktmpdir
      @path = "#{@folder}/all.zip"
    end

    def teardown
      FileUtils.rm_rf(@folder)
      Testing.demo(fresh: true)
    end

    def q = Store::Property.first(prefix: "Q")

    def write(*properties, path: @path, whole: true)
      Store::Bundle::Writer.new(properties, whole:).write(path, made_on: DAY)
    end

    def merge(path = @path) = Store::Bundle::Merge.new(Store::Bundle::Reader.new(path))

    def thistle(*words)
      said, status = Open3.capture2e("#{ROOT}/bin/thistle", *words)
      assert_predicate status, :success?, said
      said
    end

    # Runs Ruby in a copy of its own.
    def in_copy(name, code)
      script = "require '#{ROOT}/thistle'; require 'rack/mock'\nThistle::Web::Boot.call(ARGV[0])\n#{code}"
      folder = File.expand_path(name, @folder)
      said, errors, status = Open3.capture3("bundle", "exec", "ruby", "-e", script, folder, chdir: ROOT)
      assert_predicate status, :success?, errors[0, 2000]
      said
    end

    def fix_day(name) = in_copy(name, "Thistle::Store::Setting.write('today', '#{DAY}')")

    # Accounts belong to a copy; without them both are as anyone sees them.
    def test_an_empty_copy_gives_the_same_answers_and_writes_the_same_file
      %i[memberships accounts].each { |table| Sequel::Model.db[table].delete }
      Store::Setting.write(Store::Account::DEMO, "")
      thistle "bundle", "--whole", "--data", home = File.dirname(Store::Database.path), @path
      fix_day("empty")
      said = thistle("open", "--data", "#{@folder}/empty", @path)
      refute_match(/newer|both/, said)
      thistle "bundle", "--whole", "--data", "#{@folder}/empty", again = "#{@folder}/again.zip"
      written, twice = [@path, again].map { |path| Store::Bundle::Reader.new(path).manifest }

      assert_equal written.slice("tables", "files"), twice.slice("tables", "files")
      assert_match(/\A\d+ the same\s*\z/, thistle("open", "--data", "#{@folder}/empty", @path))
      before, after = [home, "#{@folder}/empty"].map do |folder|
        JSON.parse(in_copy(folder, WALK).lines.last)
      end

      assert_operator before.size, :>=, 80
      assert_equal before.keys, after.keys
      assert_empty(before.keys.reject { |address| before[address] == after[address] })
    end

    # Two copies of one land go on apart: what each did alone comes together, what both changed is asked about.
    def test_two_copies_come_together
      write(q)
      thistle "open", "--data", "#{@folder}/b", @path
      in_copy("b", <<~RUBY)
        include Thistle
        there = Store::Patch.first(code: "Q-01")
        there.update(note: "seen from b")
        Store::Patch.first(code: "Q-02").update(note: "b says thicket")
        Store::Check.record(there, checked_on: Date.iso8601("#{DAY}"), resprouts: 3, missed: 0, seedlings: 1)
        Store::Patch.create(there.values.except(:id, :code, :lock_version).merge(code: "Q-90", note: "new at b"))
      RUBY
      thistle "bundle", "--whole", "--data", "#{@folder}/b", "#{@folder}/b.zip", "Q"
      Store::Patch.first(code: "Q-02").update(note: "home says saplings")
      Store::Patch.first(code: "Q-04").update(note: "home alone")
      Store::Patch.create(Store::Patch.first(code: "Q-04").values.except(:id, :lock_version)
                                      .merge(code: "Q-90", note: "new at home"))
      came = merge("#{@folder}/b.zip")

      assert_equal({ new: 1, newer: 1, both: 1, ours: 1 }, came.counts["patches"].except(:same))
      assert_equal({ new: 1 }, came.counts["checks"].except(:same))
      assert_equal [{ "note" => ["home says saplings", "b says thicket"] }],
                   came.conflicts.map { |line| came.apart(line) }
      came.take(came.conflicts.first.gid => "theirs")
      notes = Store::Patch.live.where(code: %w[Q-01 Q-02 Q-04 Q-90 Q-90-2]).select_hash(:code, :note)

      assert_equal({ "Q-01" => "seen from b", "Q-02" => "b says thicket", "Q-04" => "home alone",
                     "Q-90" => "new at home", "Q-90-2" => "new at b" }, notes)
      assert_equal ["Q-90 is called Q-90-2 here: another is called so already."], came.notes
      assert_equal 3, Store::Patch.first(code: "Q-01").checks.last.resprouts
      again = merge("#{@folder}/b.zip").lines.reject { |line| %i[same ours].include?(line.what) }

      assert_empty again.map { |line| [line.what, line.table.name, line.gid] }, "twice is once"
    end

    # Into a copy with lands of its own, whose ids are taken: every row points where it pointed.
    def test_a_land_among_others_keeps_its_threads
      write(q)
      said = in_copy("other", <<~RUBY)
        include Thistle
        Demo::Land.new.load
        Store::Property.each { |one| one.update(prefix: "X\#{one.prefix}", name: "Other \#{one.name}") }
        merge = Store::Bundle::Merge.new(Store::Bundle::Reader.new("#{@path}"))
        raise "its ids are free" if merge.exact?
        merge.take
        raise "a thread leads nowhere" if Store::Bundle.raw("PRAGMA foreign_key_check").any?
        here = Store::Property.first(prefix: "Q")
        works = Store::Treatment.where(patch_id: here.live_patches.unordered.select(:id))
        lost = works.flat_map { |work| JSON.parse(work.people_ids) } - Store::Person.select_map(:id)
        raise "people are lost" if lost.any?
        #{COUNTS}
        puts JSON.generate(counts)
      RUBY

      rows = Store::Bundle::Reader.new(@path).manifest["tables"].transform_values { |told| told["rows"] }

      assert_equal rows.slice(*HELD), JSON.parse(said.lines.last)
    end

    # Tables whose rows are counted, of the land `here`.
    HELD = %w[patches treatments checks observations plantings zones searches].freeze
    COUNTS = <<~RUBY
      patches = Store::Patch.where(property_id: here.id).unordered
      counts = { patches: patches.count }
      %i[treatments checks observations plantings].each do |name|
        counts[name] = Sequel::Model.db[name].where(patch_id: patches.select(:id)).count
      end
      %i[zones searches].each { |name| counts[name] = Sequel::Model.db[name].where(property_id: here.id).count }
    RUBY

    def test_what_is_damaged_or_strange_is_refused
      write(q)
      { "manifest.json" => ->(text) { text.sub("nimble-thistle-bundle", "other") },
        "tables/patches.jsonl" => ->(text) { text.sub("Q-01", "Q-0X") } }.each do |name, spoil|
        assert_raises(Core::BadInput, name) { merge(spoilt(name, &spoil)) }
      end
      newer = spoilt("manifest.json") { |text| text.sub(/"schema": \d+/, '"schema": 9999') }

      assert_match(/newer program/, assert_raises(Core::BadInput) { merge(newer) }.message)
      File.binwrite("#{@folder}/none.zip", "no zip")
      assert_raises(Core::BadInput) { merge("#{@folder}/none.zip") }
    end

    # Tables that belong to a copy, or are worked out: everything else is in a bundle.
    LEFT = %i[settings jobs sent_forms mappings practice kept_searches row_changes origins bundle_arrivals schema_info
              plant_names texts texts_words accounts memberships guest_links comments permissions letters trail
              account_password_hashes account_login_change_keys account_login_failures account_lockouts
              account_password_reset_keys
              account_remember_keys account_active_session_keys account_otp_keys account_recovery_codes
              account_webauthn_user_ids account_webauthn_keys groups phones held_records].freeze

    def test_no_table_is_forgotten
      own = Sequel::Model.db.tables.grep_v(/_(?:rowid|node|parent|data|idx|content|docsize|config|extents)\z/)

      assert_equal [], own - LEFT - Store::Bundle::TABLES.keys.map(&:to_sym)
      Store::Bundle::TABLES.each do |name, table|
        columns = Sequel::Model.db[name.to_sym].columns.map(&:to_s)
        named = table.refs.keys + table.lists.keys + table.keyed.keys + table.worked_out + table.kept_ids +
                table.private + table.secret + [*table.by, *table.key, *table.alike, *table.unique, *table.blob]

        assert_empty named - columns, name
        ids = columns.grep(/_id\z/) - table.refs.keys - table.secret - table.worked_out -
              [*table.points&.fetch(:column)]

        assert_empty ids, "#{name} points to something that nobody turns"
      end
    end

    def test_what_is_private_stays_unless_it_is_asked_for
      Store::Person.first.update(emergency: "mother 555", cannot: JSON.generate(["heights"]))
      q.renew_calendar_key
      write(q, whole: false)
      text = Zip::File.open(@path) { |zip| zip.map { |entry| entry.get_input_stream.read.to_s }.join }

      ["mother 555", q.calendar_token, '[\\"heights\\"]'].each { |words| refute_includes text, words }
    end

    # Handed on, brought, looked over and taken through the pages.
    def test_a_bundle_goes_through_the_pages
      get "/records/bundle"
      File.binwrite(@path, last_response.body)
      Store::Patch.first(code: "Q-02").update(note: "changed since")
      send_form :post, "/records/bundles", file: upload("no zip", "a.zip")

      assert_equal 422, last_response.status
      assert_said "The file is no bundle"
      send_form :post, "/records/bundles", file: upload(File.binread(@path), "q.zip")
      arrival = Store::BundleArrival.open.first
      follow_redirect!
      assert_said "Everything in it is here already"
      assert_equal 1, json("/records/bundles/#{arrival.id}.json")["counts"]["patches"]["ours"]
      send_form :post, "/records/bundles/#{arrival.id}/take"
      follow_redirect!

      assert_said "Taken in:", "1 newer here."
      assert_equal "changed since", Store::Patch.first(code: "Q-02").note
      refute_path_exists arrival.path
      send_form :post, "/records/bundles/#{arrival.id}/take"

      assert_equal 409, last_response.status
    end

    private

    def spoilt(name)
      path = "#{@folder}/spoilt-#{name.tr("/", "-")}"
      Zip::OutputStream.open(path) do |out|
        Zip::File.open(@path).each do |entry|
          bytes = entry.get_input_stream.read.to_s
          out.put_next_entry(entry.name)
          out.write(entry.name == name ? yield(bytes) : bytes)
        end
      end
      path
    end
  end
end
