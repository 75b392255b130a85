# frozen_string_literal: true

module Thistle
  module Core
    module Recheck
      # What stands of a patch by its records: what was last counted, less what work killed since, grown on to the day
      # asked at the likely values of its plant's Stages (Futures plays the same with ranges and luck). Within a growing
      # season a count stays what it was; each season that begins after it goes on from there.
      #
      #   Standing.new(stages, m2: 400.0, latitude: 41.0).after([Event], first: nil)  # => State
      #   standing.on(state, day)                                                     # => State of that day
      class Standing
        # What a record says, in order of time. kind: :seen, :worked, :looked, :parted (a part of the ground went) or
        # :joined (another ground came in); from: [kind of record, id].
        #   :seen    plants: counted, nil where nobody did; amounts: was anything said of how much stands there?
        #   :worked  done: plants taken on, nil where nobody counted; share: of the ground then; kill: share, 0 to 1;
        #            fell: had seed fallen?
        #   :looked  plants, seedlings: that live, nil where nobody counted; bearing: plants that no work touched;
        #            amounts: was the cover said?
        #   :parted  share: of the ground, that stays
        #   :joined  state: State of the other
        Event = Value.define(:kind, :on, :from, :plants, :bearing, :seedlings, :amounts, :done, :kill, :fell, :share,
                             :state)

        # adults and young: those that were counted and all that is grown, of herbs all but this season's seedlings;
        # small: of shrubs and trees, that came up since and do not bear; seedlings: of this season; seeds: living, in
        # the ground; bears: of the likely seed, what this stand bears; ground: of the area last told, as how many
        # plants it stood for; counted: were plants, and seeded: seedlings, ever counted? from: [kind, id] of the record
        # that counted, nil for the patch's own columns; since: its day; worked_on: the last work after it; shared: by
        # its share of the ground; fallen: did this season's seed fall? on: the day that it is true of.
        State = Value.define(:adults, :young, :small, :seedlings, :seeds, :bears, :ground, :counted, :seeded, :from,
                             :since, :worked_on, :shared, :fallen, :on) do
          def plants = adults + young
          # Plants, and young ones, as whole numbers; of what nobody checked after work something may live.
          def whole = worked_on && plants.positive? ? [plants.round, 1].max : plants.round
          def whole_young = (small + seedlings).round
          # As one number, by the room that they take.
          def size = plants + ((small + seedlings) * SEEDLING)
          # Of the area last told, what is still held, 0 to 1.
          def share = ground.positive? ? [size / ground, 1.0].min : 1.0
        end

        SEEDLING = 0.03 # of a grown plant's room that a seedling takes (memory)
        MOST_YEARS = 30 # played after a count
        FASTEST = 2.5 # times a year, that a stand which doubles in weeks has grown for years (memory)
        UNSEEN = 0.5 # seedlings, where a check saw none
        LEAST = 0.02 # of the likely seed, what a stand is taken to bear whose seedlings were few (memory)

        # m2: of the ground; latitude: degrees, which says when a season begins.
        def initialize(stages, m2:, latitude:)
          @stages, @latitude = stages, latitude
          @growth = Growth.new(stages, m2:, latitude:)
          @at, @left = stages.likely, stages.left
        end

        # So many plants on a day, with the seed of the years before, in which it grew as such stands do; counted: by
        # somebody?
        def begin_with(plants, on, counted:, from: nil)
          plants = plants.to_f
          bearing = plants * bearing_share
          before = @left / rate
          seeds = @at["fecundity"] * bearing / rate * (1 - (before**@at["stood"])) / (1 - before)
          up = seeds * @at["germination"]
          State.new(adults: bearing, young: plants - bearing, small: 0.0, seedlings: up, seeds: seeds * @left,
                    bears: 1.0, ground: plants, counted:, seeded: false, from:, since: on, fallen: false, on:)
        end

        # The State that [Event], in order, leave of a first State.
        def after(events, first:)
          events.reduce(first) { |state, event| told(on(state, event.on), event) }
        end

        # As it is on a day: the same within a season, a year on for each that began since. What doubles in weeks goes
        # on all through its season.
        def on(state, day)
          years = seasons(state.on, day).clamp(0, MOST_YEARS)
          years.times do
            state = @growth.next_year(state).with(on: Season::Year.start_of(state.on, @latitude) >> 12)
          end
          state = @growth.spread(state, day)
          state.with(on: [day, state.on].max)
        end

        # Growing seasons that began after a day, until another.
        def seasons(from, to)
          Season::Year.start_of(to, @latitude).year - Season::Year.start_of(from, @latitude).year
        end

        private

        def told(state, event)
          case event.kind
          when :seen then seen(state, event)
          when :worked then worked(state, event)
          when :looked then looked(state, event)
          when :parted then scaled(state, event.share).with(shared: true)
          when :joined then joined(state, on(event.state, event.on))
          end
        end

        def seen(state, event)
          return event.amounts ? state.with(ground: state.size) : state unless event.plants

          counted = recounted(state, event.plants.to_f)
          counted.with(seedlings: state.seedlings, ground: counted.plants, counted: true, from: event.from,
                       since: event.on, worked_on: nil, shared: false)
        end

        # What lives is what was counted; without a count of plants it stays as it was worked out.
        def looked(state, event)
          found = event.plants ? state.with(**parted(event), small: 0.0) : state
          found = seedlings(found, event.seedlings) if event.seedlings
          found = found.with(ground: found.size) if event.amounts
          found.with(counted: state.counted || !event.plants.nil?, from: event.from, since: event.on, worked_on: nil,
                     shared: false)
        end

        # What was missed bears; what stands again does not yet.
        def parted(event)
          bearing = [event.bearing || event.plants, event.plants].min.to_f
          { adults: bearing, young: event.plants - bearing }
        end

        # Times that such a stand has grown in each of the years before.
        def rate = @at["creep"] >= Growth::DOUBLING ? FASTEST : [@stages.growth_rate, 1.0].max

        # Of plants that are counted, those that bear: all annuals; of herbs as many as bear in a stand that grows by
        # its own rate; of shrubs and trees, whose small ones are not counted, Futures::BEARING.
        def bearing_share
          return 1.0 if @stages.annual?
          return Futures::BEARING if @stages.plant.woody?

          ripe = @at["juveniles"] / [@at["to_seed"] - 1, 1].max
          more = rate - @at["adults"] - (@at["creep"] * @at["daughters"])
          1 / (1 + ([more, 0.0].max / ripe))
        end

        # Who bears and who does not, in the share that they had.
        def recounted(state, plants)
          bearing = state.plants.positive? ? state.adults / state.plants : bearing_share
          state.with(adults: plants * bearing, young: plants * (1 - bearing), small: 0.0)
        end

        # So many seedlings come of so much seed; where fewer came than was likely, as much less is borne here.
        def seedlings(state, count)
          came = (count.zero? ? UNSEEN : count).to_f
          bears = state.seedlings.positive? ? state.bears * [came / state.seedlings, 1.0].min : state.bears
          state.with(seedlings: count.to_f, seeds: came / [@at["germination"], 0.01].max * @left, seeded: true,
                     bears: [bears, LEAST].max)
        end

        def worked(state, event)
          state = @growth.fall(state) if event.fell
          hit = event.done || (state.plants * @at["found"] * (event.share || 1.0))
          hit = [hit, state.plants].min
          left = state.plants.positive? ? 1 - (hit * event.kill / state.plants) : 1.0
          small = 1 - (@at["found_small"] * @at["kill_small"])
          state.with(adults: state.adults * left, young: state.young * left, small: state.small * small,
                     seedlings: state.seedlings * small, worked_on: event.on)
        end

        def scaled(state, share)
          numbers = %i[adults young small seedlings seeds ground].to_h { |field| [field, state[field] * share] }
          state.with(**numbers)
        end

        def joined(state, other)
          numbers = %i[adults young small seedlings seeds ground].to_h do |field|
            [field, state[field] + other[field]]
          end
          last = [state, other].max_by { |one| [one.since, one.counted ? 1 : 0] }
          state.with(**numbers, counted: state.counted && other.counted, seeded: state.seeded || other.seeded,
                                bears: [state, other].map(&:bears).max, from: last.from, since: last.since,
                                shared: state.shared || other.shared,
                                worked_on: [state.worked_on, other.worked_on].compact.max)
        end
      end
    end
  end
end
