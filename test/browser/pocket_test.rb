# frozen_string_literal: true

require "chunky_png"
require "support/browser"
require "support/phone"

module Thistle
  # A phone without signal: what was taken along is there, what is recorded is kept and sent once, the rules answer from
  # the phone itself. The line is a proxy of the tests, since a browser's own switch does not reach its workers.
  class PocketBrowserTest < BrowserTest
    include Testing::Phone

    def test_a_day_without_signal
      take_along
      @line.set(:dead)
      locked_by_a_pin
      recorded_without_signal
      named_without_signal
      answered_without_signal
      @line.set(:through)
      visit "/pocket"
      execute_script("dispatchEvent(new Event('online'))")

      assert_text "Nothing waits"
      assert_selector "[data-pocket-held]", text: "held by the server", visible: :all
      assert_equal [1, 1, 1, 2], [works, pictures, made, Store::Check.where(note: "no signal").count]
      assert_equal made_patch.id, Store::Check.where(note: "no signal").order(:id).last.patch_id
    end

    # Each property has its own Today, whichever was taken along last; once the weather that came along is over there is
    # no verdict.
    def test_two_properties_and_ten_days
      first, second = Store::Property.kept.order(:id).first(2)
      take_along
      visit "/pocket?at=#{second.id}"
      click_button "Take along"

      assert_text(/#{second.name}: .* pages, .* as of/, wait: LONG)
      assert_link "Turn to #{first.name}"
      @line.set(:dead)
      [["/recheck", second], ["/?at=#{first.id}", first], ["/recheck", first]].each do |path, land|
        visit path

        assert_text "No signal."
        assert_selector "details.place > summary", exact_text: land.name, visible: :all
      end
      there = second.live_patches.wanting_work.exclude(plant_key: nil).first
      [[there, second], [patch, first]].each do |one, land|
        visit "/decide?patch=#{one.id}"

        assert_selector "main .verdict", wait: LONG
        assert_selector "details.place > summary", exact_text: land.name, visible: :all
        assert_selector "main", text: one.code
      end
      assert_text "Worked out on this phone for"
      evaluate_async_script(<<~JS)
        Keep.lands().then((lands) => Keep.setLand('#{first.id}', { ...lands['#{first.id}'],
          rules: { ...lands['#{first.id}'].rules, at: Date.now() - 10 * 86400e3 } })).then(() => arguments[0]())
      JS
      visit "/decide?patch=#{patch.id}"

      assert_text "the weather that was taken along is over"
      assert_no_selector "main .verdict"
    end

    # Cut before a request, after it, or not at all, a hundred times: as many as were recorded, each once, in order.
    def test_a_line_that_breaks_anywhere
      visit "/pocket/record"
      random = Random.new(7)
      @line.set { { 0 => :dead, 1 => :cut }.fetch(random.rand(4), :through) }
      execute_script(<<~JS)
        const ids = #{JSON.generate(Store::Patch.live.exclude(plant_key: nil).order(:id).limit(5).select_map(:id))};
        (async () => {
          const queue = await Pocket.ready;
          for (let n = 0; n < 40; n += 1) {
            const fields = { patch: ids[n % 5], method_key: 'cut_only', done_on: '2026-05-11', crew_size: 1, hours: 1,
                             stems_done: n + 1, note: `broken ${String(n).padStart(2, '0')}` };
            await queue.add({ to: '/work/treatments', account: Pocket.account, lane: `patch ${ids[n % 5]}`,
                              fields: Object.entries(fields).map(([name, value]) => [name, String(value)]), words: 'Work' });
            if (n % 7 === 0) await Pocket.send({ force: true });
          }
          for (let n = 0; n < 400; n += 1) if ((await Pocket.send({ force: true })).left === 0) break;
          document.title = 'all sent';
        })();
      JS
      eventually(LONG) { evaluate_script("document.title") == "all sent" }
      notes = Store::Treatment.where(Sequel.like(:note, "broken %")).order(:id).select_map(%i[patch_id note])

      assert_equal 40, notes.map(&:last).uniq.size
      assert_equal 40, notes.size
      notes.group_by(&:first).each_value { |mine| assert_equal mine.map(&:last).sort, mine.map(&:last) }
    end

    # What the server refuses stays, and is mended in its own form; a phone that was cut off is emptied.
    def test_refused_mended_and_cut_off
      visit "/pocket/record?kind=work"
      @line.set(:dead)
      fill_work(hours: "")
      click_button "Record the work"

      assert_text "No signal. It is kept on this phone"
      @line.set(:through)
      visit "/pocket"

      assert_text "Hours each is missing."
      click_link "Mend it"

      assert_text "Mend it and send it again"
      within("#work") do
        fill_in "Hours each", with: "2"
        click_button "Record the work"
      end

      assert_text "Work recorded"
      Store::Phone.first.cut_off
      visit "/pocket/record?kind=work"
      fill_work(hours: "1")
      click_button "Record the work"

      eventually { evaluate_async_script("Keep.store.all().then((all) => arguments[0](all.length === 0))") }
      assert_equal 1, works
    end

    # Two tabs that send at once; a phone without room, which says so and lets nothing be typed in vain; an application
    # that was brought up to date while records wait.
    def test_two_tabs_no_room_and_a_new_version
      visit "/pocket/record?kind=work"
      eventually { evaluate_script("Boolean(navigator.serviceWorker.controller)") }
      @line.set(:dead)
      fill_work(hours: "1")
      click_button "Record the work"

      assert_text "It is kept on this phone"
      @line.set(:through)
      brought_up_to_date
      other = open_new_window
      within_window(other) { visit "/pocket" }
      execute_script("Promise.all([Pocket.send({ force: true }), Pocket.send({ force: true })])")
      within_window(other) { execute_script("Pocket.send({ force: true })") }

      eventually { works == 1 && evaluate_async_script(WAITING).zero? }
      other.close
      visit "/pocket/record?kind=picture"
      execute_script("Keep.store.put = () => Promise.reject(new DOMException('full', 'QuotaExceededError'))")
      @line.set(:dead)
      within("#picture") do
        select "Q-05", from: "Patch", match: :first
        attach_file "The picture", shot
        click_button "Before"
      end

      assert_text "This phone has no room to keep it"
      @line.set(:through)
      within("#picture") { click_button "Before" }

      assert_text "The picture before is kept."
    end

    # A browser that is killed while records wait: they are there when it opens again, and are sent once.
    def test_a_killed_browser
      Dir.mktmpdir do |profile|
        with_browser(profile) do |browser, pid|
          browser.get("#{Capybara.app_host}/pocket/record")
          @line.set(:dead)
          browser.execute_async_script(<<~JS, patch.id)
            const fields = { patch: arguments[0], method_key: 'cut_only', done_on: '2026-05-11', crew_size: 1, hours: 1,
                             stems_done: 3, note: 'no signal' };
            const done = arguments[1];
            Pocket.ready
              .then((queue) => queue.add({ to: '/work/treatments', account: Pocket.account, lane: 'a', words: 'Work',
                                           fields: Object.entries(fields).map(([name, value]) => [name, `${value}`]) }))
              .then(() => done());
          JS
          Process.kill("KILL", pid)
        end
        @line.set(:through)
        with_browser(profile) do |browser, _|
          browser.get("#{Capybara.app_host}/pocket")
          eventually(LONG) { works == 1 }
        end
      end
    end

    private

    WAITING = "Keep.store.all().then((all) => arguments[0](all.filter((one) => one.state !== 'held').length))"
    private_constant :WAITING

    # A browser of its own, over a profile that stays.
    def with_browser(profile)
      options = Selenium::WebDriver::Chrome::Options.new(args: [*FLAGS, "--user-data-dir=#{profile}"],
                                                         binary: "/usr/bin/chromium", timeouts: TIMEOUTS)
      service = Selenium::WebDriver::Service.chrome(path: "/usr/bin/chromedriver")
      browser = Selenium::WebDriver.for(:chrome, options:, service:)
      pid = File.readlink(File.join(profile, "SingletonLock"))[/\d+\z/].to_i
      yield browser, pid
    ensure
      begin
        browser&.quit
      rescue Selenium::WebDriver::Error::WebDriverError, SystemCallError
        nil # it was killed
      end
      FileUtils.rm_f(Dir[File.join(profile, "Singleton*")])
    end

    # The server gives another worker, which takes over while a record waits: its files are there, the old ones gone.
    def brought_up_to_date
      files = Web::Pocket::Shell.files
      kind, code = files["/sw.js"]
      newer = files.merge("/sw.js" => [kind, code.sub(/VERSION = "\w+"/, 'VERSION = "newer"')])
      Web::Pocket::Shell.stub(:files, newer) do
        execute_script("navigator.serviceWorker.getRegistration().then((one) => one.update())")

        eventually { evaluate_async_script("caches.keys().then(arguments[0])").grep(/shell/) == %w[shell-newer] }
      end
      assert_equal 1, evaluate_async_script(WAITING) + works
    end

    def works = Store::Treatment.where(note: "no signal").count
    def pictures = Store::Picture.where(patch_id: patch.id, moment: "before", taken_on: Testing::TODAY).count
    def made = Store::Patch.where(note: "a new one").count

    def fill_work(hours:)
      within("#work") do
        select "Q-05", from: "Patch", match: :first
        select "Cut only", from: "Method"
        fill_in "People", with: "1"
        fill_in "Hours each", with: hours
        fill_in "Stems done", with: "3"
        fill_in "Note", with: "no signal"
      end
    end

    # A PIN stands before what the phone holds, once it was left alone for a while.
    def locked_by_a_pin
      visit "/pocket"
      find("summary", text: "Ask for a PIN").click
      find("[name=pin]").set("2468\n")

      assert_text "The PIN is kept."
      execute_script("Keep.store.meta('pin').then((pin) => Keep.store.setMeta('pin', { ...pin, opened: 0 }))")
      visit "/recheck/patches/#{patch.id}"

      assert_text "Locked"
      fill_in "PIN of this phone", with: "1111"
      click_button "Open"

      assert_text "That is not the PIN."
      fill_in "PIN of this phone", with: "2468"
      click_button "Open"

      assert_text "Check Q-05"
      visit "/pocket"
      find("summary", text: "Ask for a PIN").click
      find("[name=pin]").set("\n")

      assert_text "No PIN is asked for."
    end

    # Work, a check on the patch's own page, a picture; each is kept, and its form is empty again.
    def recorded_without_signal
      visit "/pocket/record?kind=work"

      assert_text "No signal."
      fill_work(hours: "1")
      click_button "Record the work"

      assert_text "It is kept on this phone"
      visit "/recheck/patches/#{patch.id}"
      fill_in "Note", with: "no signal"
      click_button "Keep this check"

      assert_text "It is kept on this phone"
      visit "/pocket/record"
      find("summary", text: "A picture").click
      within("#picture") do
        select "Q-05", from: "Patch", match: :first
        attach_file "The picture", shot
        click_button "Before"
      end

      assert_text "3 records to send"
    end

    # A new patch where one stands, and a check of it before the server ever heard of it.
    def named_without_signal
      browser = page.driver.browser
      browser.execute_cdp("Browser.grantPermissions", permissions: ["geolocation"])
      browser.execute_cdp("Emulation.setGeolocationOverride", latitude: 38.0052, longitude: -91.4031, accuracy: 4)
      visit "/pocket/record"
      find("summary", text: "A new patch, here").click
      within("#new") do
        click_button "Take the position"
        assert_text(/known to ±\d/)
        fill_in "Radius", with: "2"
        find("textarea[name=note]").set("a new one")
        click_button "Record the patch"
      end

      assert_text "4 records to send"
      find("summary", text: "A check").click
      within("#check") do
        find("select[name=patch] option", text: "made on this phone").select_option
        { "Alive again" => 0, "Missed stems" => 0, "Seedlings" => 2 }.each { |label, n| fill_in label, with: n }
        fill_in "Note", with: "no signal"
        click_button "Record the check"
      end

      assert_text "5 records to send"
    end

    # Five plants are keyed, and a patch is asked about, on the phone alone.
    def answered_without_signal
      visit "/identify?c[leaf_arrangement]=opposite"

      assert_text "Worked out on this phone for"
      5.times do
        before = evaluate_script("document.querySelectorAll('#bench input:checked').length")
        execute_script("document.getElementById('rules-said').textContent = ''")
        find(".looks.first label", match: :first).click

        assert_text "Worked out on this phone for"
        eventually { evaluate_script("document.querySelectorAll('#bench input:checked').length") >= before }
      end
      visit "/decide?patch=#{patch.id}"

      assert_text "Worked out on this phone for"
      visit "/survey/patches/99999"

      assert_text "this page was not taken along"
    end

    def shot
      Tempfile.new(["p", ".png"]).tap do |file|
        image = ChunkyPNG::Image.new(900, 600)
        900.times { |x| 600.times { |y| image[x, y] = ChunkyPNG::Color.rgb(rand(256), rand(256), rand(256)) } }
        image.save(file.path)
      end.path
    end
  end
end
