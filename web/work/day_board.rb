# frozen_string_literal: true

module Thistle
  module Web
    module Work
      # A work day ready for its pages: what was proposed, stop by stop and block by block, with what each needs.
      class DayBoard
        # number: in the walk; told: what the proposal says of it (hours, share, why longer).
        Stop = Core::Value.define(:number, :patch, :removal, :told, :turns)
        NOTHING = { turns: [], blocks: [], done: [], left_out: [], more: [], walk: [], odds: [], metres: 0,
                    unmet: [], by: nil }.freeze
        ALIKE = 6 # look-alikes on one sheet

        attr_reader :work_day, :today, :answer

        def initialize(work_day, today)
          @work_day, @today = work_day, today
          @answer = work_day.answered || NOTHING
        end

        def property = work_day.property
        def asked? = !work_day.answer.nil?
        def blocks = answer[:blocks]

        # [Stop] in the order of the walk.
        def stops
          @stops ||= answer[:walk].each_with_index.filter_map do |id, n|
            patch, told = patches[id], answer[:done].find { |one| one[:patch] == id }
            next unless patch && told

            Stop.new(number: n + 1, patch:, removal: Core::Knowledge.shipped.removal(told[:method]), told:,
                     turns: answer[:turns].select { |turn| turn[:patch] == id })
          end
        end

        # [Stop, names] of a block.
        def at(block)
          stops.filter_map do |stop|
            turn = stop.turns.find { |one| one[:block] == block }
            turn && [stop, turn[:people].map { |one| one[:name] }]
          end
        end

        # Who has nothing to do in a block.
        def free(block) = work_day.crew.map(&:name) - at(block).flat_map(&:last)

        # Patches of the plan that want no work any more.
        def closed_since = stops.map(&:patch).reject { |patch| Store::Patch::WANTING.include?(patch.state) }

        # The walk as places, from the way in and back.
        def walk
          return [] if stops.empty?

          home = Store::DayJobs.new(work_day, today).home
          [home, *stops.map { |stop| stop.patch.shape.centre }, home]
        end

        # Ways that lead through a patch in seed: [[number before, number after, Patch]], 0 for the car.
        def crossings
          return [] if in_seed.empty?

          legs = walk.each_cons(2).with_index.flat_map do |ends, n|
            crossed(ends).map { |patch| [n, n == stops.size ? 0 : n + 1, patch] }
          end
          legs.reject { |*ends, patch| stops.any? { |stop| ends.include?(stop.number) && stop.patch == patch } }
        end

        # {code => Date} of stops that another day holds as well.
        def elsewhere
          others = Store::WorkDay.live.where(property_id: property.id, closed_at: nil).exclude(id: work_day.id)
                                 .where(Sequel[:held_on] >= today).exclude(answer: nil).order(:held_on).limit(20).all
          found = others.flat_map { |day| day.answered[:walk].map { |id| [id, day.held_on] } }.to_h
          stops.to_h { |stop| [stop.patch.code, found[stop.patch.id]] }.compact
        end

        def ground
          Survey::GroundPlot.new(property, stops.map(&:patch), walk:)
        end

        def kit
          @kit ||= begin
            turns = stops.flat_map do |stop|
              plant, size = stop.patch.plant, stop.patch.stem_size
              stop.turns.map do |turn|
                Core::Work::KitList::Turn.new(removal: stop.removal, people: turn[:people].size, block: turn[:block],
                                              plant:, size:)
              end
            end
            have = Store::KitItem.usable(work_day.property.group_id).merge(work_day.tools_kept)
            Core::Work::KitList.new(turns, have:, seed: stops.any? { |stop| stop.told[:late] },
                                           water_l: bodies&.dig(:water_l))
          end
        end

        # What the hours ask of bodies: {felt, said, wbgt, work_rest, drink_l_h, water_l, typed}; nil where nothing is
        # known.
        def bodies = answer[:exposure]

        # Stops in seed that are worked before clean ground, and why: [{code, why}].
        def out_of_order = answer[:out_of_order] || []

        # Tools that are fewer than the day wants.
        def short = kit.tools.select { |row| row.short.positive? }

        # {Removal => [Stop]}: each way once, with where it is done.
        def by_method = stops.group_by(&:removal)

        def brief(stop) = (@briefs ||= {})[stop.number] ||= Core::Work::Brief.new(situation(stop), stop.removal)

        # Hazards, once each: of plants, methods, ground and weather.
        def hazards = stops.flat_map { |stop| brief(stop).safety.hazards }.uniq
        def dress = stops.flat_map { |stop| brief(stop).safety.dress }.uniq

        # {words where it goes => [what]}
        def goes
          parts = stops.flat_map { |stop| Core::Decide::Waste.new(situation(stop), stop.removal).parts }
          parts.group_by(&:text).transform_values { |some| some.map(&:label).uniq }
        end

        # Plants to leave standing that look like what is removed, beside it: [Core::Identify::Duel].
        def look_alikes
          pairs = stops.map { |stop| stop.patch.plant }.uniq.flat_map do |plant|
            Core::Identify::Settlement.pairs(plant, Core::Knowledge.shipped).map { |pair| [plant, pair.plant] }
          end
          others = pairs.uniq(&:last).reject { |_, other| property.weed?(other) }.first(ALIKE)
          others.map do |plant, other|
            Core::Identify::Duel.new(plant, other, site: property.site(today), date: work_day.held_on)
          end
        end

        # How a crew is parted best on a stop (Core::Work::Teams), nil for work that nobody hands on.
        def teams(stop)
          crew = stop.turns.max_by { |turn| turn[:people].size }[:people]
          people = crew.size
          return if people < 2

          stems = (stop.patch.history.there(work_day.held_on)&.number || 60).clamp(1, 5000)
          hauled = haul(stop)
          minutes = stop.told[:hours][:likely] * 60 / stems
          made = Core::Work::Teams.new(stop.removal, stems:, minutes:, people:, licensed: licensed(crew),
                                                     haul_minutes: hauled ? hauled.person_hours * 60 / stems : 0.0,
                                                     own: work_day.minutes_kept.fetch(stop.patch.id, {}))
          made if made.line && made.best
        end

        # Is anything carried off there?
        def hauls?(stop) = stop.removal.is?(*HAULED)

        # What is cut or pulled on a stop, to a pile near by (Core::Work::Haul::Answer); nil where the plant stays, or
        # nobody knows how much of it there is.
        def haul(stop)
          amount = amount_of(stop.patch) if hauls?(stop)
          amount && Core::Work::Haul.new(**amount, distance_m: NEAR_M, fruit: stop.told[:late]).answer
        end
        HAULED = %i[pulling digging severing levering cutting felling topping turf].freeze
        NEAR_M = 40.0 # to the pile, where nobody measured (memory)

        def haul_words(answer, units)
          [units.mass(answer.kg * 1000), Words.count(answer.loads, "tarp load"),
           ("#{answer.piles_wanted} to pile, logs for #{answer.piles_possible}" if answer.piles_wanted.positive?),
           ("#{Words.count(answer.bags_stripped, "bag")} of fruit" if answer.bags_stripped.positive?)].compact
        end

        private

        # {stems: by size, ground_m2:} that stand there on the day; nil where it is not known.
        def amount_of(patch)
          if patch.plant.woody?
            number = patch.history.there(work_day.held_on)&.number or return
            { stems: { patch.stem_size || "thumb" => number }, ground_m2: 0.0 }
          else
            ground = patch.facts(work_day.held_on).area_m2 or return
            { stems: {}, ground_m2: ground.to_f, kind: Core::Work::Haul.kind_of(patch.plant) }
          end
        end

        # Patches whose plant is in seed that day.
        def in_seed
          @in_seed ||= begin
            site, on = property.site(today), work_day.held_on
            seeding = property.plants.select { |plant| site.calendar(plant).phases_on(on).include?(:ripe_seed) }
            property.live_patches.exclude(state: "closed").where(plant_key: seeding.map(&:key)).limit(60).all
          end
        end

        def crossed(ends)
          line = Core::Survey::Shape.new("type" => "LineString", "coordinates" => ends)
          leg = line.plane.feature(line)
          in_seed.select { |patch| (ground = patch.ground) && leg.intersects?(line.plane.feature(ground)) }
        end

        def situation(stop)
          facts = stop.patch.facts(today).with(date: work_day.held_on)
          Core::Decide::Bench.new(facts, property.site(today)).situation
        end

        def licensed(crew)
          names = crew.map { |one| one[:name] }
          work_day.crew.count { |person| names.include?(person.name) && person.licensed?(work_day.held_on) }
        end

        def patches
          @patches ||= Store::Patch.where(id: answer[:walk]).all.to_h { |patch| [patch.id, patch] }
        end
      end
    end
  end
end
