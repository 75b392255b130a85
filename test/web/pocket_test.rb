# frozen_string_literal: true

require "support/web"
require "formats/image_test"

module Thistle
  # What a phone sends once it has signal: done once, held after commit, refused in words, in the hands of one account.
  class PocketTest < RackTest
    KEY = "0190a1b2-c3d4-7e5f-8a9b-0c1d2e3f4a5b"
    PHONE = "ab" * 16
    WORK = { method_key: "cut_only", done_on: "2026-05-11", crew_size: "2", hours: "1", stems_done: "9" }.freeze

    def send_record(path, key: KEY, phone: PHONE, live: nil, made: nil, off: nil, **fields)
      { "X-Record-Key" => key, "X-Phone" => phone, "X-CSRF-Token" => @token, "X-Record-Live" => live,
        "X-Record-Made" => made&.to_s, "X-Record-Clock" => off&.to_s }.compact.each { |name, text| header name, text }
      post path, fields
      last_response.media_type == "application/json" ? JSON.parse(last_response.body) : last_response.status
    ensure
      %w[X-Record-Key X-Phone X-CSRF-Token X-Record-Live X-Record-Made X-Record-Clock].each { |name| header name, nil }
    end

    def works = Store::Treatment.count

    def test_a_record_counts_once_however_often_it_is_sent
      before, patch = works, patch("Q-05")
      answers = Array.new(3) { send_record("/work/treatments", patch: patch.id, **WORK) }

      assert_equal [{ "held" => true, "place" => "/survey/patches/#{patch.id}" }], answers.uniq
      assert_equal [before + 1, 1], [works, Store::HeldRecord.count]
      refute_includes get("/survey/patches/#{patch.id}").body, "Work recorded.", "nobody waits for a flash"
    end

    # At the same moment from several connections, as a phone that repeats itself does.
    def test_at_the_same_moment
      before = works
      id = patch("Q-05").id
      cookie = rack_mock_session.cookie_jar.for(URI("http://example.org/"))
      said = Array.new(4) do
        Thread.new do
          Rack::MockRequest.new(app).post("/work/treatments", :params => { patch: id, **WORK }, "HTTP_COOKIE" => cookie,
                                                              "HTTP_HOST" => "example.org",
                                                              "HTTP_X_RECORD_KEY" => KEY, "HTTP_X_PHONE" => PHONE,
                                                              "HTTP_X_CSRF_TOKEN" => @token).body
        end
      end.map(&:value)

      assert_equal [before + 1, 1], [works, said.uniq.size]
    end

    # What is refused leaves nothing behind, and the same key may come mended.
    def test_what_is_refused_says_why_by_field
      before, id = works, patch("Q-05").id
      said = send_record("/work/treatments", patch: id, **WORK, crew_size: "", hours: "many")

      assert_equal [422, %w[crew_size hours]], [last_response.status, said["fields"].keys.sort]
      assert_equal 422, send_record("/work/treatments", patch: id, **WORK, crew_size: "", live: "1"),
                   "a page for who waits"
      assert_includes last_response.body, "is missing"
      send_record("/work/treatments", patch: id, **WORK)

      assert_equal [before + 1, [KEY]], [works, Store::HeldRecord.select_map(:key)]
    end

    # Where too many photographs are looked through, a phone keeps its own and asks again.
    def test_a_busy_moment_refuses_nothing
      id = patch("Q-05").id
      picture = -> do
        shot = Rack::Test::UploadedFile.new(StringIO.new(ImageTest.jpeg), "image/jpeg", original_filename: "a.jpg")
        send_record("/work/pictures", patch: id, moment: "before", file: shot)
      end
      busy = ->(*) { raise Core::Busy.new("Many files are being read just now.", field: :photos) }
      Core::Apart.stub(:call, busy) { picture.call }

      assert_equal [503, 0], [last_response.status, Store::HeldRecord.count]
      picture.call

      assert_equal [200, [KEY]], [last_response.status, Store::HeldRecord.select_map(:key)]
      assert_equal id, Store::Picture.last.patch_id
    end

    # Led on without having written anything: a patch without a name is named first. It stays on the phone, with why.
    def test_nothing_is_held_that_was_not_kept
      unnamed = Store::Patch.live.where(plant_key: nil).first
      said = send_record("/work/treatments", patch: unnamed.id, **WORK)

      assert_equal [422, 0], [last_response.status, Store::HeldRecord.count]
      assert_match(/Find out what .* is first/, said["error"])
    end

    # A patch that the phone made is named by its key; what it needs must be here first.
    def test_a_patch_of_the_phones_own
      second = KEY.sub("0190", "0191")
      check = { patch: KEY, checked_on: "2026-05-12", resprouts: "0", missed: "0", seedlings: "1" }

      assert_equal({ "error" => "There is nothing at this address." },
                   send_record("/recheck/checks", key: second, **check))
      at = JSON.generate(type: "Point", coordinates: [-91.4031, 38.0052])
      made = send_record("/survey/patches", geometry: at, seen_on: "2026-05-12", radius: "3", plants: "4")

      assert_match(%r{\A/survey/patches/\d+\z}, made["place"])
      assert_equal made["place"], send_record("/recheck/checks", key: second, **check)["place"]
      assert_equal made["place"][/\d+/].to_i, Store::Check.last.patch_id
    end

    # Its day is the day on which it was made, by the phone's clock put right; one that is nonsense is not believed.
    def test_the_day_of_a_record_is_when_it_was_made
      noon = Time.utc(2026, 5, 10, 17).to_i * 1000
      hour = 3_600_000
      days = { noon => 0, (noon + (9 * 24 * hour)) => 9 * 24 * hour, 5 => 0 }.map.with_index do |(made, off), n|
        send_record("/replant/water", key: KEY.sub("0190", "020#{n}"), patch: patch("Q-0#{n + 1}").id, made:, off:)
        Store::Watering.last.watered_on.iso8601
      end

      assert_equal %w[2026-05-10 2026-05-10 2026-05-12], days
      assert_equal [0, 9 * 24 * 3600, 0], Store::HeldRecord.order(:key).select_map(:clock_off)
    end

    # A photograph comes in pieces; what came before the signal went need not come again.
    def test_a_photograph_in_pieces
      image = ImageTest.jpeg
      half, key = image.bytesize / 2, "#{KEY}.0"
      put_piece(key, 0, image[0, half])
      put_piece(key, 0, "again") # came twice

      assert_equal half, json("/pocket/pieces/#{key}.json")["have"]
      put_piece(key, half, image[half..])
      id = patch("Q-05").id
      send_record("/work/pictures", patch: id, moment: "before", file: "piece:#{key}|a.jpg|image/jpeg")

      assert_equal [id, 0], [Store::Picture.last.patch_id, json("/pocket/pieces/#{key}.json")["have"]]
    end

    # A key makes a record of nothing that is none.
    def test_only_records_have_keys
      [["/season/calendar/key", {}], ["/find/kept", { name: "a", asked: "q=a" }]].each do |path, fields|
        assert_equal 303, send_record(path, **fields), path
      end
      assert_empty Store::HeldRecord.all
    end

    def test_pieces_have_their_measure
      put_piece("../../etc/passwd.0", 0, "x")

      assert_includes [404, 422], last_response.status
      put_piece("#{KEY}.0", Store::Pieces::MOST, "x")

      assert_equal 422, last_response.status
    end

    # A phone that was cut off is told so, and what it still holds is not taken.
    def test_a_lost_phone
      send_record("/work/treatments", patch: patch("Q-05").id, **WORK)
      before = works
      send_form(:post, "/pocket/phones/#{Store::Phone.first.id}/cut-off")
      said = send_record("/work/treatments", key: KEY.sub("0190", "0191"), patch: patch("Q-05").id, **WORK)

      assert_equal [true, 403, before], [said["cut_off"], last_response.status, works]
      header "X-Phone", PHONE

      assert json("/pocket/standing.json")["empty"]
    end

    # The same key from somebody else is no answer to them.
    def test_another_account_and_nobody
      send_record("/work/treatments", patch: patch("Q-05").id, **WORK)
      send_form(:post, "/account/look-as", account: Store::Account.first(name: "J. Finch").id)
      get "/find"
      @token = last_response.body[/name="csrf" content="([^"]+)"/, 1]

      assert_equal "This record came from another account.",
                   send_record("/work/treatments", patch: patch("Q-05").id, **WORK)["error"]
      Store::Setting.write(Store::Account::DEMO, "")
      send_record("/work/treatments", patch: patch("Q-05").id, **WORK)

      assert_equal [401, nil], [last_response.status, json("/pocket/standing.json")["account"]]
    end

    # Two who changed one patch: the second is told, and nothing is overwritten.
    def test_both_versions
      one = patch("Q-05")
      form = Web::Survey::Forms::Patch.of(one, Core::Units.new).raw.merge("lock_version" => one.lock_version.to_s)
      one.update(note: "theirs")
      send_record("/survey/patches/#{one.id}", **form.transform_keys(&:to_sym), note: "mine", _method: "put")

      assert_equal [409, "theirs"], [last_response.status, one.refresh.note]
    end

    # A copy that was set back says what it does not know.
    def test_what_a_restored_copy_lacks
      send_record("/work/treatments", patch: patch("Q-05").id, **WORK)
      other = KEY.sub("0190", "0191")
      send_form(:post, "/pocket/known.json", keys: [KEY, other, "no key"].join(","))

      assert_equal [other], JSON.parse(last_response.body)["unknown"]
      header "X-Phone", PHONE

      assert_equal 1, json("/pocket/standing.json")["held"]
    end

    # All that is to go along is there, each once, and nothing of it is long in coming to whoever asks twice.
    def test_what_goes_along
      day = Store::WorkDay.live.where(held_on: today..).first
      along = json("/pocket/along.json?day=#{day.id}")

      assert_includes along["pages"], "/work/days/#{day.id}/field"
      assert_equal along["pages"], along["pages"].uniq
      told = (along["pages"] + along["map"]).to_h { |path| [path, get(path).status] }

      assert_empty(told.reject { |_, status| status == 200 })
    end

    # Installable: a manifest with icons that are there, a worker at the root that names files that are there.
    def test_it_can_be_installed
      told = JSON.parse(get("/manifest.webmanifest").body)
      sizes = told["icons"].map { |icon| icon["sizes"] }

      assert_equal ["standalone", "/", %w[192x192 512x512]], [*told.values_at("display", "start_url"), sizes.uniq]
      told["icons"].each { |icon| assert_equal ["image/png", 200], [get(icon["src"]).media_type, last_response.status] }
      told["shortcuts"].each { |one| assert_equal 200, get(one["url"]).status, one }
      shell = JSON.parse(get("/sw.js").body[/SHELL = (\[.*?\]);/, 1])

      assert_equal "no-cache", get("/sw.js")["cache-control"]
      assert_equal Web::Pocket::Shell::FILES, shell.map { |file| file.split("?").first }
      shell.each { |file| assert_equal 200, get(file).status, file }
    end

    # Each is a route, and one that writes.
    def test_records_that_a_phone_keeps_are_routes
      assert_empty Web::Addresses::POCKET - Web::Addresses::ALL.keys
      assert_empty Web::Addresses::POCKET.grep(/\AGET/)
    end

    private

    def today = Store::Setting.today

    def put_piece(key, from, bytes)
      put "/pocket/pieces/#{key}.json?from=#{from}", bytes,
          { "CONTENT_TYPE" => "application/octet-stream", "HTTP_X_CSRF_TOKEN" => @token }
    end
  end
end
