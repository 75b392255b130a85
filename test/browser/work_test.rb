# frozen_string_literal: true

require "support/browser"

module Thistle
  # A whole day with a phone: who comes, what is proposed, taps that survive a reload and a lost signal, records,
  # thanks.
  class WorkBrowserTest < BrowserTest
    def taps = Store::Tap.live.select_order_map(:kind)

    def test_a_day_with_a_phone
      resize("phone")
      visit "/work/people/new"
      fill_in "Name, as they want it", with: "B. Sands"
      check "crew lead"
      click_button "Put them on the list"

      assert_text "B. Sands is on the list."
      visit "/work/days/new"
      fill_in "Day", with: Testing::TODAY
      fill_in "Volunteers besides", with: "3"
      check "B. Sands"
      click_button "Propose the day"

      assert_text "The day is proposed."
      day = Store::WorkDay.last
      code = find(".block-row .stamp", match: :first).text.split("\n").last
      click_link "In the field"
      click_link code

      tap_through(day)
      click_link "All stops"
      click_link "Write the day down"

      assert_field "Plants", with: "13"
      click_button "Keep all of these records"

      assert_text "Thank you"
      assert_text "Written down: 1 record."
      assert_match(/B. Sands|volunteer/, Store::Treatment.first(work_day_id: day.id).who)
      assert_empty(complaints.grep_v(%r{INTERNET_DISCONNECTED|/taps }))
    end

    # A stop dragged to the last block is held there.
    def test_a_stop_is_dragged_to_another_time
      visit "/work/days/1"
      stop = find("[data-drags]", match: :first)
      patch_id = stop["data-drags"].to_i
      last = all("[data-drops]").size - 1
      stop.drag_to(find("[data-drops='#{last}'] h2"), html5: true)

      assert_text "is held; the day is proposed again."
      assert_equal({ patch_id => last }, Store::WorkDay[1].pins_kept)
      answer = Store::WorkDay[1].answered
      held = answer[:turns].any? { |turn| turn.values_at(:patch, :block) == [patch_id, last] }

      assert held || answer[:unmet].any?, "held there, or said why not"
    end

    private

    # Records on the phone that the server does not hold yet.
    def waiting
      evaluate_async_script(<<~JS)
        Keep.store.all().then((all) => arguments[0](all.filter((one) => one.state !== 'held' && one.to.includes('/taps')).length))
      JS
    end

    # The first is held up on its way; neither is lost, and what the server refuses stays, with why.
    def tap_twice_while_one_travels
      execute_script(<<~JS)
        const plain = window.fetch;
        window.fetch = (...how) => new Promise((done) => setTimeout(done, 700)).then(() => plain(...how));
      JS
      2.times { click_button "+1", match: :first }

      assert_selector "[data-count='plants-']", text: /\A13\z/
      eventually { waiting.zero? }
      execute_script(<<~JS)
        const gone = { to: location.pathname.replace(/field.*/, 'taps'), words: '+1', account: Pocket.account,
                       fields: [['patch', '999999'], ['kind', 'plants'], ['amount', '1'], ['key', 'tap-gone-1']] };
        Pocket.ready.then((queue) => queue.add(gone)).then(() => Pocket.send({ force: true }));
      JS

      assert_selector ".refused-taps", text: /Not taken: \+1\./
      click_button "Let it go"

      assert_no_selector ".refused-taps p"
      assert_equal 0, waiting
      visit current_path
    end

    # Began, counted, reloaded, counted without a signal, stopped.
    def tap_through(day)
      click_button "Start", exact: true

      assert_selector "[data-began]", text: /\A0:00:0\d\z/
      visit current_path

      assert_selector "[data-began]", text: /\A0:00:\d\d\z/
      click_button "+10", match: :first

      assert_selector "[data-count='plants-']", text: /\A10\z/
      eventually { waiting.zero? }
      page.driver.browser.network_conditions = { offline: true, latency: 0, throughput: 0 }
      click_button "+1", match: :first

      assert_text "1 kept on this phone: no signal."
      page.driver.browser.network_conditions = { offline: false, latency: 0, throughput: -1 }
      execute_script("dispatchEvent(new Event('online'))")

      assert_selector "[data-count='plants-']", text: /\A11\z/
      tap_twice_while_one_travels
      click_button "Stop"

      assert_text "h so far"
      eventually { taps == %w[plants plants plants plants start stop] }
      assert_equal [day.id], Store::Tap.distinct.select_map(:work_day_id)
    end
  end
end
