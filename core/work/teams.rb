# frozen_string_literal: true

module Thistle
  module Core
    module Work
      # How many of a crew do what on one kind of work (the lines of knowledge/crew.yml): each way of parting them is
      # played through, and the one that is done first is the answer.
      class Teams
        # people: {station => number}; played: Line::Played; minutes: for all of the stems.
        Split = Value.define(:people, :played, :minutes)
        PLAYED = 60 # stems that are played through; more take as much again
        SPREAD = 0.4 # of a stem's time, log-normal (memory)
        MOST = 24 # people at one piece of work

        attr_reader :line

        # stems to do; minutes: of one person for one stem, cut to laid away; haul_minutes: of one stem for one hauler;
        # licensed: people who may treat; own: {station => minutes of a stem} that somebody timed.
        def initialize(removal, stems:, minutes:, people:, licensed: 0, haul_minutes: 0.0, own: {})
          @stems, @minutes, @people, @licensed = stems, minutes, [people, MOST].min, licensed
          @removal, @haul, @own, @line = removal, haul_minutes, own, self.class.line(removal)
        end

        # {station => minutes of a stem}, as they are played.
        def minutes = stations.keys.to_h { |key| [key, share(key)] }

        # The line that a method is; nil for work that nobody hands on.
        def self.line(removal, crew = Knowledge.shipped.crew)
          crew["lines"].find { |one| removal.is?(*one["tags"].map(&:to_sym)) }
        end

        # [Split], the soonest done first; none where the crew is too small for the line, or nobody may treat.
        def splits
          @splits ||= (line ? parted : []).map { |people| split(people) }
                                          .sort_by { |one| [one.minutes, one.people.values] }
        end

        def best = splits.first

        # Minutes that another person would save; 0 where none.
        def one_more
          return 0.0 unless best

          larger = Teams.new(@removal, stems: @stems, minutes: @minutes, people: @people + 1, licensed: @licensed,
                                       haul_minutes: @haul, own: @own)
          [best.minutes - larger.best.minutes, 0.0].max
        end

        private

        def stations = line["stations"]

        # Each way to give every station somebody: [{station => people}]. Those that have nothing to do get nobody.
        def parted
          keys = stations.keys.reject { |key| share(key).zero? }
          return [] if @people < keys.size

          compositions(@people, keys.size).map { |counts| keys.zip(counts).to_h }.select do |people|
            people.all? { |key, count| !stations[key]["licensed"] || count <= @licensed }
          end
        end

        def compositions(total, parts)
          return [[total]] if parts == 1

          (1..(total - parts + 1)).flat_map do |first|
            compositions(total - first, parts - 1).map { |rest| [first, *rest] }
          end
        end

        def split(people)
          items = [@stems, PLAYED].min
          played = Line.new(people.map { |key, count| station(key, count, people) }, items:).run
          Split.new(people:, played:, minutes: items.zero? ? 0.0 : played.minutes * @stems / items)
        end

        def station(key, count, people)
          mean = share(key)
          Line::Station.new(key:, people: count, room: stations[key]["room"],
                            after: stations[key].fetch("after", []).select { |one| people.key?(one) },
                            minutes: ->(random) { mean * drawn(random) })
        end

        # Minutes of one stem at a station.
        def share(key)
          @own[key] || (stations[key].key?("share") ? stations[key]["share"] * @minutes : @haul)
        end

        # Log-normal about 1.
        def drawn(random) = Math.exp((SPREAD * Normal.draw(random)) - (0.5 * (SPREAD**2)))
      end
    end
  end
end
