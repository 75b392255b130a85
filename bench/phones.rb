# frozen_string_literal: true

# `rake bench phones`: three phones in real Chromium keep a thousand works and checks and two hundred photographs, then
# send them over lines that break at random, before a request or after it; the server is killed twice meanwhile. None
# may be lost, none doubled, and each patch's records come in order. PHONES, RECORDS and PHOTOGRAPHS say otherwise how
# many.
require "json"
require "selenium-webdriver"
require "sqlite3"
require_relative "../thistle"
require_relative "../test/support/line"
require_relative "served"

module Thistle
  # Three phones, one server, a bad line.
  class Phones
    include Served

    PHONES = Integer(ENV.fetch("PHONES", "3"))
    RECORDS = Integer(ENV.fetch("RECORDS", "1000"))
    PHOTOGRAPHS = Integer(ENV.fetch("PHOTOGRAPHS", "200"))
    KILLS = [20, 60].freeze # seconds after the sending began
    LONGEST = 1800 # seconds until all must be held
    FLAGS = %w[--headless=new --no-sandbox --disable-gpu --disable-background-networking
               --window-size=390,844].freeze
    PATCHES = "SELECT id FROM patches WHERE plant_key IS NOT NULL AND deleted_at IS NULL ORDER BY id LIMIT 9"
    PICTURES = "SELECT count(*) FROM pictures WHERE moment = 'before'"
    HELD = "SELECT patch_id, note FROM %s WHERE note GLOB '[0-9] [0-9]*' ORDER BY id"

    # A phone's own part, all kept before any is sent.
    KEEP = <<~JS
      const [phone, ids, records, photographs, done] = arguments;
      const canvas = Object.assign(document.createElement('canvas'), { width: 480, height: 360 });
      const shot = (n) => new Promise((kept) => {
        const pen = canvas.getContext('2d');
        const image = pen.createImageData(480, 360);
        for (let at = 0; at < image.data.length; at += 1)
          image.data[at] = at % 4 === 3 ? 255 : (at * (n + 7)) % 251;
        pen.putImageData(image, 0, 0);
        canvas.toBlob(kept, 'image/png');
      });
      const said = (fields) => Object.entries(fields).map(([name, value]) => [name, `${value}`]);
      (async () => {
        const queue = await Pocket.ready;
        const add = (to, words, patch, fields, files = []) =>
          queue.add({ to, words, files, account: Pocket.account, lane: `patch ${patch}`,
                      fields: said({ patch, ...fields }) });
        for (let n = 0; n < records; n += 1) {
          const patch = ids[n % ids.length];
          const note = `${phone} ${`${n}`.padStart(4, '0')}`;
          if (n % 3 < 2)
            await add('/work/treatments', 'Work', patch,
                      { method_key: 'cut_only', done_on: '2026-05-11', crew_size: 1, hours: 1, stems_done: n + 1, note });
          else
            await add('/recheck/checks', 'Check', patch,
                      { checked_on: '2026-05-11', resprouts: 1, missed: 0, seedlings: 0, note });
        }
        for (let n = 0; n < photographs; n += 1)
          await add('/work/pictures', 'Picture', ids[n % ids.length], { moment: 'before' },
                    [{ name: 'file', filename: `${phone} ${n}.png`, blob: await shot(n + phone * 1000) }]);
        done((await Keep.store.all()).length);
      })();
    JS

    # A phone sends for a minute, or until nothing waits: how many wait.
    SEND = <<~JS
      const done = arguments[0];
      const until = Date.now() + 60000;
      (async () => {
        let left = -1;
        while (left !== 0 && Date.now() < until) ({ left } = await Pocket.send({ force: true }));
        done(left);
      })();
    JS

    def run
      puts "#{PHONES} phones, #{RECORDS} records, #{PHOTOGRAPHS} photographs"
      Dir.mktmpdir("thistle") do |folder|
        @file = File.join(folder, "thistle.db")
        serve_from(folder) do
          @lines = Array.new(PHONES) { Testing::Line.new(@port) }
          @phones = Array.new(PHONES) { browser }
          keep
          send_all(folder)
        end
        judge
      end
    ensure
      @phones&.each(&:quit)
      @lines&.each(&:close_all)
    end

    private

    def browser
      options = Selenium::WebDriver::Chrome::Options.new(args: FLAGS, binary: "/usr/bin/chromium")
      service = Selenium::WebDriver::Service.chrome(path: "/usr/bin/chromedriver")
      http_client = Selenium::WebDriver::Remote::Http::Default.new(read_timeout: 700)
      Selenium::WebDriver.for(:chrome, options:, service:, http_client:)
                         .tap { |one| one.manage.timeouts.script_timeout = 600 }
    end

    def each_phone
      @phones.each_with_index.map { |phone, n| Thread.new { yield phone, n } }.map(&:value)
    end

    def keep
      ids = rows(PATCHES).flatten
      @pictures = rows(PICTURES).dig(0, 0)
      kept = each_phone do |phone, n|
        phone.get("http://127.0.0.1:#{@lines[n].port}/pocket/record")
        phone.execute_async_script(KEEP, n, ids, RECORDS / PHONES, PHOTOGRAPHS / PHONES)
      end
      @lines.each_with_index { |line, n| line.set(&luck(n)) }
      puts "  #{kept.sum} wait on the phones"
    end

    # Of four connections one finds nobody, and one is answered in vain.
    def luck(seed)
      random = Random.new(seed)
      -> { { 0 => :dead, 1 => :cut }.fetch(random.rand(4), :through) }
    end

    def send_all(folder)
      began = now
      killer = Thread.new { KILLS.each { |at| sleep([began + at - now, 0].max) && kill_and_serve(folder) } }
      left = each_phone do |phone, _|
        waiting = nil
        waiting = phone.execute_async_script(SEND) until waiting&.zero? || now > began + LONGEST
        waiting
      end
      killer.join
      puts format("  %d s; still waiting %d", now - began, left.sum)
    end

    # Not stopped: killed, with its workers, and served again from the same folder.
    def kill_and_serve(folder)
      [@server, *File.read("/proc/#{@server}/task/#{@server}/children").split.map(&:to_i)].each do |pid|
        Process.kill("KILL", pid)
      rescue Errno::ESRCH
        nil
      end
      Process.wait(@server)
      @server = Process.spawn(RbConfig.ruby, "bin/server", "--demo", "--port", @port.to_s, "--data", folder,
                              chdir: ROOT, out: File::NULL)
    end

    def rows(sql)
      db = SQLite3::Database.new(@file, readonly: true)
      db.execute(sql)
    ensure
      db&.close
    end

    def judge
      held = %w[treatments checks].to_h { |table| [table, rows(format(HELD, table))] }
      notes = held.values.flatten(1).map(&:last)
      mixed = held.values.flat_map { |some| some.group_by { |patch, note| [patch, note[0]] }.values }
                  .count { |some| some != some.sort_by(&:last) }
      records, photographs = [RECORDS, PHOTOGRAPHS].map { |all| all / PHONES * PHONES }
      puts "  records held #{notes.uniq.size} of #{records}, doubled #{notes.size - notes.uniq.size}, patches out of " \
           "order #{mixed}; photographs #{rows(PICTURES).dig(0, 0) - @pictures} of #{photographs}"
    end
  end
end

Dir.chdir(Thistle::ROOT) { Thistle::Phones.new.run }
