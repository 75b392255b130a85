# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # Every invader by every method that its file names, on the first of each month, on a ground of each climate: the
      # visits that follow, to read from end to end and to hold as a table.
      class ReturnsTable
        FAR = 400 # days within which there has to be a visit
        # on: the day of the work; visits: [Returns::Visit]; seeds_on: the next day on which its seed is ripe, nil for
        # none; seeding: was it in ripe seed then?
        Row = Value.define(:plant, :removal, :climate, :on, :visits, :seeds_on, :seeding) do
          # No visit at all within the time.
          def missing? = visits.empty? || visits.first.due_on > on + FAR

          # Something may have been missed, and no visit comes before it seeds.
          def late?
            !seeding && !seeds_on.nil? && visits.none? { |visit| visit.due_on > on && visit.due_on < seeds_on }
          end

          # It is ripe on the next day: nobody comes back before that.
          def ripe_tomorrow? = seeds_on == on + 1
          def doubled? = visits.each_cons(2).any? { |a, b| b.due_on - a.due_on <= Returns::ONE }

          # With tabs between: what, where, when, the next seed, and days to each visit with what asks for it.
          def line
            days = visits.map { |visit| "#{(visit.due_on - on).to_i} #{visit.key}" }
            [plant.key, removal.key, climate, on, seeding ? "in seed" : seeds_on || "no seed",
             days.join(", ")].join("\t")
          end
        end

        # sites: {climate => Season::Site}.
        def initialize(knowledge, sites)
          @knowledge, @sites = knowledge, sites
        end

        # Each Row; the block says in which months (1 to 12) of a year a plant, a method and a climate are asked.
        def each(year, months = ->(*) { 1..12 })
          @knowledge.invaders.product(@sites.to_a).each do |plant, (climate, site)|
            plant.removals.each_key do |key|
              months.call(plant, key, climate).each do |month|
                yield row(plant, @knowledge.removal(key), climate, site, Date.new(year, month, 1))
              end
            end
          end
        end

        private

        def row(plant, removal, climate, site, on)
          spells = site.calendar(plant).spells(:ripe_seed, on, on + FAR)
          visits = Returns.new(plant:, removal:, done_on: on, site:).visits
          Row.new(plant:, removal:, climate:, on:, visits:, seeding: spells.any? { |span| span.from <= on },
                  seeds_on: spells.map(&:from).find { |day| day > on })
        end
      end
    end
  end
end
