# frozen_string_literal: true

module Thistle
  module Web
    module Season
      # The year of a property: its marks, and for each plant there its phases and when each method is right.
      class YearBoard
        Card = Struct.new(:plant, :calendar, :windows) do
          # Its own, however alike: what was drawn of it is kept by it.
          def hash = object_id
          def eql?(other) = equal?(other)
        end
        SHOWN = 24 # plants with their windows on one page; the rest are listed

        attr_reader :property, :site, :today

        def initialize(property, site, today, all: false)
          @property, @site, @today, @all = property, site, today, all
        end

        def all? = @all
        def year = site.year

        # The property's plants, else those that may stand here.
        def plants = @plants ||= @all || here.empty? ? around : here

        # Plants mapped here that are removed here.
        def here = @here ||= property.plants.select { |plant| property.weed?(plant) }

        # Those that the region is known to have, or somebody mapped; where no region is said, the library's invaders.
        def around
          @around ||= begin
            known = property.region ? property.weeds.select { |plant| plant.grows_in?(property.region) } : invaders
            (known | here).sort_by(&:name)
          end
        end

        def invaders = Core::Knowledge.shipped.invaders

        # [Card], those with work that closes soonest first.
        def cards
          @cards ||= Core::Kept::ANSWERS.fetch([:cards, site, facts(plants.first), plants.map(&:key)]) do
            plants.map { |plant| card(plant) }.sort_by { |card| [closing(card), card.plant.name] }
          end
        end

        # What the season asks of ground where nothing else stands against a method: the windows are the year's, not a
        # patch's.
        def facts(plant)
          property.facts(plant, today, natives_near: true, water_m: plant.aquatic? ? 0.0 : 1000.0)
        end

        # The rows of its drawing: phases, then when each method that takes it out is right.
        def rows(card)
          windows = card.windows.select { |removal, spans| spans.any? && (removal.removes? || removal.is?(:freeing)) }
          YearRows.phases(card.calendar.phenophases(year)) + windows.map do |removal, spans|
            YearRows.row(removal, spans)
          end
        end

        # {:hand, :herbicide => [[from, to]]}: when any method that takes plants out is right, run together.
        def lanes(card)
          removing = card.windows.select { |removal, _| removal.removes? }
          lanes = removing.group_by { |removal, _| removal.herbicide? ? :herbicide : :hand }
          lanes.transform_values { |rows| joined(rows.flat_map(&:last)) }
        end

        private

        def joined(windows)
          windows.map { |w| [w.from, w.to] }.sort.each_with_object([]) do |(from, to), all|
            all.any? && from <= all.last[1] + 1 ? all.last[1] = [all.last[1], to].max : all << [from, to]
          end
        end

        def card(plant)
          bench = Core::Decide::Bench.new(facts(plant), site)
          removals = bench.named.select { |removal| removal.removes? || removal.is?(:freeing, :seed_stop) }
          Card.new(plant, facts(plant).calendar(site), removals.to_h { |removal| [removal, bench.windows(removal)] })
        end

        # Days until the next window shuts that is open today; far off for none.
        def closing(card)
          open = card.windows.values.flatten.select { |span| today.between?(span.from, span.to) && span.closes }
          open.map { |span| (span.to - today).to_i }.min || 999
        end
      end
    end
  end
end
