# frozen_string_literal: true

module Thistle
  module Core
    module Work
      # Work that goes from hand to hand, one stem after the other, played through: who is busy, who waits, how many
      # stand before whom.
      #
      #   Line.new([cut, treat], items: 60).run  # => Played
      class Line
        # key: of it; people; after: keys of the stations that a stem goes on to; room: how many may stand before or in
        # it, nil for any; minutes: of one stem for one person, given a Random.
        Station = Value.define(:key, :people, :after, :room, :minutes)
        # One stem with one person: from and to in minutes.
        Spell = Value.define(:station, :person, :item, :from, :to)
        # minutes: until the last is done; busy: {station => share of its people's time}; most: {station => most that
        # stood before or in it}; mean: {station => the same on average}; spells: [Spell].
        Played = Value.define(:minutes, :busy, :most, :mean, :spells)

        # The first station takes from a stock of `items`.
        def initialize(stations, items:, seed: 1)
          @stations, @items = stations, items
          @random = Random.new(seed)
          @by_key = stations.to_h { |station| [station.key, station] }
        end

        # What happened: Played.
        def run
          begin_anew
          start_all
          until @events.empty?
            event = @events.shift
            tally(event.to)
            finish(event)
            start_all
          end
          played
        end

        private

        def begin_anew
          keys = @by_key.keys
          @now, @left, @events, @spells = 0.0, @items, [], []
          @queue, @free = keys.to_h { |key| [key, []] }, @stations.to_h { |one| [one.key, (0...one.people).to_a] }
          @working, @most, @area = [0, 0, 0.0].map { |zero| keys.to_h { |key| [key, zero] } }
        end

        # Those behind go first: they make room.
        def start_all
          @stations.reverse_each do |station|
            begin_spell(station) while @free[station.key].any? && waits?(station) && room_after?(station)
          end
        end

        def first?(station) = station.equal?(@stations.first)
        def waits?(station) = first?(station) ? @left.positive? : @queue[station.key].any?
        def standing(key) = @queue[key].size + @working[key]

        # Whoever starts now must find room for it when it is done.
        def room_after?(station)
          station.after.to_a.all? do |key|
            room = @by_key.fetch(key).room
            room.nil? || standing(key) + @working[station.key] < room
          end
        end

        # The number of the next item that nobody has begun yet.
        def next_item
          @left -= 1
          @items - @left
        end

        def begin_spell(station)
          item = first?(station) ? next_item : @queue[station.key].shift
          @working[station.key] += 1
          spell = Spell.new(station: station.key, person: @free[station.key].shift, item:, from: @now,
                            to: @now + station.minutes.call(@random))
          @spells << spell
          at = @events.bsearch_index { |event| event.to > spell.to } || @events.size
          @events.insert(at, spell)
        end

        def finish(spell)
          @working[spell.station] -= 1
          @free[spell.station] = (@free[spell.station] << spell.person).sort
          @by_key.fetch(spell.station).after.to_a.each do |key|
            @queue[key] << spell.item
            @most[key] = [@most[key], standing(key)].max
          end
        end

        # Time goes on.
        def tally(to)
          @by_key.each_key { |key| @area[key] += standing(key) * (to - @now) }
          @now = to
        end

        def played
          worked = @spells.group_by(&:station).transform_values { |some| some.sum { |one| one.to - one.from } }
          busy = @by_key.to_h do |key, station|
            [key, @now.positive? && station.people.positive? ? worked.fetch(key, 0) / (station.people * @now) : 0.0]
          end
          mean = @area.transform_values { |area| @now.positive? ? area / @now : 0.0 }
          Played.new(minutes: @now, busy:, most: @most, mean:, spells: @spells)
        end
      end
    end
  end
end
