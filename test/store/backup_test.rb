# frozen_string_literal: true

require "test_helper"
require "tmpdir"
require "zip"
require_relative "../../bench/killed_restore"

module Thistle
  # Everything in one file, made while others write, checked whole on the way back.
  class StoreBackupTest < Minitest::Test
    def setup
      Testing.demo(fresh: true)
      @folder = File.dirname(Store::Database.path)
      @path = File.join(@folder, "copy.zip")
    end

    def teardown
      FileUtils.rm_rf([@path, File.join(@folder, "copies")])
      Testing.demo(fresh: true)
    end

    def backup = Store::Backup.new(@folder)
    def restore(path) = Store::Restore.new(@folder).call(path)

    # Of the index of words only its rows count: how it parts them changes as it is written.
    def rows
      tables = Sequel::Model.db.tables.reject { |table| table.start_with?("texts_") } - [:schema_info]
      tables.to_h { |table| [table, Sequel::Model.db[table].count] }
    end

    def layers
      Dir.children(File.join(@folder, "layers"))
         .sort.map { |file| [file, File.size(File.join(@folder, "layers", file))] }
    end

    def test_what_was_copied_comes_back_whole_layers_too
      before = [rows, layers, Testing.patch("Q-01").note]
      writing = Thread.new { 20.times { |n| Testing.patch("Q-02").update(note: "while it is copied #{n}") } }
      contents = backup.write(@path)
      writing.join
      Testing.patch("Q-01").update(note: "after it was copied")
      Store::Patch.where(code: "Q-07").delete
      FileUtils.rm_rf(File.join(@folder, "layers"))
      kept = restore(@path)

      assert_equal before, [rows, layers, Testing.patch("Q-01").note]
      assert_equal contents.tables, kept.tables
      assert_equal 1, Dir[File.join(@folder, "copies", "before-restore-*.zip")].size, "what was there before is kept"
    end

    # Whoever was signed in when the copy was made is not, once it is back: they may have been sent away since.
    def test_a_copy_opens_no_door
      sessions = Sequel::Model.db[:account_active_session_keys]
      sessions.insert(account_id: 1, session_id: "of last night")
      backup.write(@path)
      restore(@path)

      assert_empty Sequel::Model.db[:account_active_session_keys].all
    end

    def test_a_copy_that_is_not_whole_is_refused_and_changes_nothing
      backup.write(@path)
      Testing.patch("Q-01").update(note: "mine")
      { "manifest.json" => ->(text) { text.sub(/"patches": \d+/, '"patches": 999') },
        "thistle.db" => ->(bytes) { bytes[0, 4096 * 20] + ("\0" * 4096) + bytes[(4096 * 21)..] },
        "layers" => ->(bytes) { "#{bytes}x" } }.each do |name, spoil|
        bad = spoilt(name, &spoil)
        said = assert_raises(Store::Backup::Refused, name) { restore(bad) }.message

        assert_match(/rows of patches|broken|is not as it was copied|belong to nothing/, said)
        assert_equal "mine", Testing.patch("Q-01").note
      end
      File.write(@path, "no copy at all")

      assert_match(/is not a copy that this program made/,
                   assert_raises(Store::Backup::Refused) { restore(@path) }.message)
      empty = Store::Backup.new(File.join(@folder, "layers"))

      assert_match(/There is no thistle.db/, assert_raises(Store::Backup::Refused) { empty.write(@path) }.message)
      assert_empty Dir[File.join(@folder, "**", "*.part")], "nothing half written stays"
    end

    # Killed before and after each call that touches the disk, what was there or what was wanted stands whole.
    def test_a_restore_that_is_killed_leaves_the_old_or_the_new
      folder = twin
      old, wanted = Dir.mktmpdir("old"), nil
      FileUtils.cp_r("#{folder}/.", old)
      restore = KilledRestore.new(folder, @path)
      before = restore.stands
      seen = (1..400).map do |n|
        killed = restore.at(n, from: :lay_ready)
        now = restore.stands
        Store::Restore.new(folder).sweep
        wanted ||= now unless now == before

        assert_includes [before, wanted], now, "killed at touch #{n}"
        assert_empty restore.left_over, "after touch #{n}"
        back(folder, old) unless now == before
        break [*(1...n).map { before }, now] unless killed

        now
      end

      refute_equal before, seen.last
      assert_operator seen.size, :>, 40
    ensure
      [folder, old].compact.each { |path| FileUtils.rm_rf(path) }
    end

    # A database that is no database: kept under another name, once no server has it open.
    def test_a_broken_database_is_restored_too
      folder = twin
      File.write(File.join(folder, "thistle.db"), "no database " * 999)
      FileUtils.rm_f(%w[wal shm].map { |end_| File.join(folder, "thistle.db-#{end_}") })
      File.open(folder) do |server|
        server.flock(File::LOCK_SH)

        assert_match(/Stop the server/,
                     assert_raises(Store::Backup::Refused) { Store::Restore.new(folder).call(@path) }.message)
      end
      Store::Restore.new(folder).call(@path)

      assert_equal 4, KilledRestore.new(folder, @path).stands.last.size
      assert_equal 1, Dir[File.join(folder, "copies", "broken-*.db")].size
    ensure
      FileUtils.rm_rf(folder)
    end

    # A folder with the same land, and something changed in it since the copy was made; one layer is cut, one gone.
    def twin
      backup.write(@path)
      Dir.mktmpdir("twin").tap do |folder|
        Store::Restore.new(folder).call(@path)
        db = SQLite3::Database.new(File.join(folder, "thistle.db"))
        db.execute("UPDATE patches SET note = 'mine'")
        files = db.execute("SELECT file FROM layers ORDER BY id").flatten
        db.execute("UPDATE layers SET file = 'another.elevation' WHERE file = ?", files[1])
        db.close
        File.write(File.join(folder, "layers", files[0]), "other bytes")
        File.rename(*[files[1], "another.elevation"].map { |file| File.join(folder, "layers", file) })
      end
    end

    def back(folder, old)
      FileUtils.rm_rf(Dir.children(folder).map { |name| File.join(folder, name) })
      FileUtils.cp_r("#{old}/.", folder)
    end

    # The copy with one entry of a name changed.
    def spoilt(name)
      bad = File.join(@folder, "copies", "bad.zip")
      FileUtils.mkdir_p(File.dirname(bad))
      Zip::OutputStream.open(bad) do |out|
        Zip::File.open(@path) do |zip|
          zip.each do |entry|
            bytes = entry.get_input_stream.read
            out.put_next_entry(entry.name)
            out.write(entry.name.start_with?(name) ? yield(bytes) : bytes)
          end
        end
      end
      bad
    end

    def daily(**how) = Store::DailyCopies.new(@folder, **how)
    def copies = Dir[File.join(@folder, "copies", "daily-*.zip")]

    # Made, read back, and only then do older ones go; the newest stays whatever the calendar says.
    def test_daily_copies_are_kept_as_long_as_the_setting_says
      old = File.join(@folder, "copies", "daily-2026-01-01.zip")
      FileUtils.mkdir_p(File.dirname(old))
      FileUtils.touch(old, mtime: Time.now - (20 * 86_400))
      Store::Setting.write("keep_copies_days", "30")
      pid = daily.make_apart
      sleep 0.1 while pid && running?(pid)

      assert_equal 2, copies.size
      assert_equal ["600"], (copies - [old]).map { |copy| format("%o", File.stat(copy).mode & 0o777) }
      assert_nil daily.make_apart, "one a day"
      Store::Setting.write("keep_copies_days", "0")

      assert_nil daily(now: Time.now + (900 * 86_400)).make_apart
      refute_path_exists old
      assert_equal 1, copies.size
    end

    # A copy that does not come about takes none away, and is said until one does.
    def test_a_copy_that_fails_is_said
      old = File.join(@folder, "copies", "daily-2026-01-01.zip")
      FileUtils.mkdir_p(File.dirname(old))
      FileUtils.touch(old, mtime: Time.now - (90 * 86_400))

      assert_match(/90 days old/, daily.said)
      spoil = ->(*) { raise Errno::ENOSPC }
      Zip::OutputStream.stub(:open, spoil) { assert_raises(Store::Backup::Refused) { daily.make } }

      assert_path_exists old
      assert_match(/did not come about: .*the disk is full/, daily.said)
      Store::Setting.write("copies_elsewhere", "#{@folder}/nowhere")

      assert_match(/could not be put into .*nowhere/, assert_raises(Store::Backup::Refused) { daily.make }.message)
      Store::Setting.write("copies_elsewhere", FileUtils.mkdir_p("#{@folder}/copies/away").first)
      daily.make

      assert_equal [nil, 1, 1], [daily.said, copies.size, Dir["#{@folder}/copies/away/daily-*.zip"].size]
    end

    def running?(pid)
      Process.kill(0, pid)
      true
    rescue Errno::ESRCH
      false
    end
  end
end
