# frozen_string_literal: true

require "yaml"
require_relative "specimens"
require_relative "readings"

module Thistle
  # The identify room: how quick an answer is, and how often it is right.
  class IdentifyBench
    LOOKS = [%w[habit shrub], %w[leaf_arrangement opposite], %w[leaf_margin smooth], %w[bark shaggy],
             %w[leaf_tip long]].freeze
    EACH = Integer(ENV.fetch("EACH", 50)) # specimens of a plant
    FEW = 10 # specimens of a kind of each plant that has them
    LEFT_OUT = 5 # specimens of a plant that the library was made to forget

    def initialize(site)
      @site = site
      @library = Core::Knowledge.shipped
      @walk = (0..LOOKS.size).map { |n| LOOKS.first(n).to_h }
    end

    # Yields an address and expects the application's answer to be fetched.
    def run(&)
      core
      exchange(&)
      named
      read
      apart
      left_out
    end

    private

    # Re-ranking after a tap and the next look, over a walk of five looks.
    def core
      prior = Core::Identify::Prior.new(chances: Core::Identify::Chances.of(@library), site: @site, date: @site.today)
      keys = -> { @walk.map { |seen| Core::Identify::Key.new(seen, site: @site, prior:) } }
      rank, look = keys.call.map { |key| time { key.candidates } }, keys.call.each(&:candidates)
                                                                        .map { |key| time { key.next_look } }
      say "re-ranking #{@library.plants.size} plants after a tap, median", rank, "asked: under 5 ms"
      say "the suggested next look, median", look, "asked: under 25 ms"
    end

    def exchange(&)
      addresses = @walk.map { |seen| "/identify?#{Rack::Utils.build_nested_query("c" => seen)}" }
      addresses.each(&)
      whole = addresses.flat_map { |path| Array.new(5) { time { yield path } } }
      empty = Array.new(25) { time { yield "/img/glyphs.svg" } }
      say "the whole exchange after a tap, median", whole,
          format("an empty exchange: %.1f ms; asked: under 80 ms", median(empty) * 1000)
    end

    def named
      volunteers = Specimens.new(site: @site, random: Random.new(1))
      walks = @library.plants.values.flat_map { |plant| Array.new(EACH) { volunteers.walk(plant) } }
      puts "#{walks.size} random specimens, #{EACH} of each plant, at most #{Specimens::LOOKS} suggested looks"
      row "right plant first", share(walks, &:right?), "at least 97"
      row "settled", share(walks, &:settled?), nil
      row "settled wrongly", share(walks) { |walk| walk.settled? && !walk.right? }, "under 0.5"
      puts format("  looks until the right plant is first for good, median %d; until settled or done, " \
                  "median %d (asked: 7 or fewer)",
                  median(walks.map { |walk| walk.lead || 99 }), median(walks.map(&:looks)))
      worst walks.reject(&:right?), EACH
    end

    # Specimens that others wrote down, by kind of situation.
    def read
      rows = YAML.safe_load_file("#{ROOT}/test/fixtures/specimens.yml").map { |row| [row, Readings.key(row)] }
      puts "#{rows.size} specimens that others wrote down without sight of the library"
      told(rows, "at least 96", "99")
      puts format("  settled wrongly %d (asked: none)", rows.count do |row, key|
        key.settlement.settled? && Readings.rank(row, key) > 1
      end)
      kinds = rows.group_by { |row, _| kind(row) }
      kinds.each { |kind, some| print("  #{kind}, #{some.size}:") || told(some, nil, nil) }
    end

    def told(rows, first, three)
      ranks = rows.map { |row, key| Readings.rank(row, key) }
      asked = first && " (asked: #{first} and #{three})"
      puts format("  right name first %.1f %%, in the first three %.1f %%%s", share(ranks) { |rank| rank == 1 },
                  share(ranks) { |rank| rank <= 3 }, asked)
    end

    # What is there to be seen of a specimen.
    def kind(row)
      shows = row["seen"].keys.map { |key| @library.characters.fetch(key).shows }
      %w[flower fruit winter turn].find { |one| shows.include?(one) }&.then { |one| "with #{one}" } ||
        (row["seen"]["rosette"] == "flat" ? "rosettes" : "leaf and stem alone")
    end

    # The same of rosettes, young plants and winter twigs, which most scouts meet.
    def apart
      Specimens::KINDS.each do |kind, told|
        volunteers = Specimens.new(site: @site, random: Random.new(3))
        walks = @library.plants.values.select(&told[:of])
                        .flat_map { |plant| Array.new(FEW) { volunteers.walk(plant, kind) } }.compact
        puts "#{walks.size} #{kind}, #{FEW} of each plant that has them"
        row "right plant first", share(walks, &:right?), nil
        row "settled wrongly", share(walks) { |walk| walk.settled? && !walk.right? }, "under 0.5"
        worst walks.reject(&:right?), FEW
      end
    end

    def left_out
      walks = @library.plants.values.flat_map do |plant|
        volunteers = Specimens.new(site: @site, random: Random.new(2), knowledge: @library.without(plant.key))
        Array.new(LEFT_OUT) { volunteers.walk(plant) }
      end
      puts "#{walks.size} specimens of plants that were left out of the library"
      row "settled all the same", share(walks, &:settled?), "under 3"
      worst walks.select(&:settled?), LEFT_OUT
    end

    def worst(walks, each)
      pairs = walks.map { |walk| "#{walk.plant.name} as #{walk.named.name}" }.tally.max_by(8, &:last)
      pairs.each { |pair, times| puts format("    %2d of %d  %s", times, each, pair) }
    end

    def share(walks, &) = 100.0 * walks.count(&) / walks.size

    def row(what, percent, asked)
      puts(format("  %-24s %6.2f %%%s", what, percent, asked ? "  (asked: #{asked})" : ""))
    end

    def median(list) = list.sort[list.size / 2]

    def say(what, times, note)
      puts format("%-52s %8.1f ms   worst %.1f ms (%s)", what, median(times) * 1000, times.max * 1000, note)
    end

    def time
      start = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      yield
      Process.clock_gettime(Process::CLOCK_MONOTONIC) - start
    end
  end
end
