# frozen_string_literal: true

require "test_helper"
require "support/constants"
require "tsort"

module Thistle
  # Which room may name which stands in ARCHITECTURE.md, in the block that begins with ```arrows.
  class ArrowsTest < Minitest::Test
    ROOMS = %w[identify survey season decide mix work recheck replant today records accounts pocket].freeze
    PARTED = %w[core web].freeze # the folders whose rooms have arrows of their own

    def setup
      Testing.demo
      LOADER.eager_load
    end

    def test_every_arrow_is_drawn
      strays = named.reject { |one| drawn?(room(one.file), room(one.home)) }

      said = strays.map { |one| "#{one.file}:#{one.line} names #{one.name}: #{room(one.file)} → #{room(one.home)}" }
      assert_empty said
    end

    # So that the drawing does not grow old.
    def test_nothing_is_drawn_that_is_not_there
      there = named.map { |one| [room(one.file), room(one.home)] }.uniq
      drawn = arrows.flat_map { |from, all| all.map { |to| [from, to] } }

      assert_empty(drawn.reject { |from, to| there.any? { |a, b| like?(from, a) && like?(to, b) } })
    end

    def test_rooms_of_core_have_no_cycle
      rooms = arrows.select { |from, _| from.match?(%r{\Acore/\w}) }
      order = TSort.tsort(->(&each) { rooms.each_key(&each) }, ->(room, &each) { rooms.fetch(room, []).each(&each) })

      assert_includes order, "core/decide"
    end

    # Gems of what lies above, and the clock.
    def test_core_asks_neither_the_web_nor_the_clock
      above = /\b(Sinatra|Sequel|ERB|Rack)\b|Date\.today|Time\.now/
      lines = files.grep(%r{\Acore/})
                   .flat_map { |file| File.foreach(File.join(ROOT, file)).map { |line| [file, line[/\A[^#]*/]] } }

      assert_empty(lines.select { |_, code| code.match?(above) })
    end

    private

    def files = @files ||= Dir.chdir(ROOT) { Dir["{#{Constants::HOUSE.join(",")}}/**/*.rb"] }.grep_v(/migrations/)

    def named
      @named ||= files.flat_map { |file| Constants.in(file) }.reject { |one| room(one.file) == room(one.home) }
    end

    # "core/season" for core/season/site.rb, "core" for core/units.rb, "store" for all of store.
    def room(file)
      top, inner = file.split("/")
      PARTED.include?(top) && ROOMS.include?(inner) ? "#{top}/#{inner}" : top
    end

    def drawn?(from, to) = arrows.any? { |a, all| like?(a, from) && all.any? { |b| like?(b, to) } }
    def like?(drawn, room) = drawn == room || (drawn.end_with?("/*") && room.start_with?(drawn.delete_suffix("*")))

    # {from => [to]}
    def arrows
      @arrows ||= File.read("#{ROOT}/ARCHITECTURE.md")[/^```arrows\n(.*?)^```/m, 1].lines.to_h do |line|
        from, to = line.split("#").first.split("→")
        [from.strip, to.split]
      end
    end
  end
end
