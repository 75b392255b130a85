# frozen_string_literal: true

module Thistle
  module Store
    # Reading: a patch as Core::Recheck::Outlook begins with it: how many plants, on what ground, what was done and
    # counted in each year, what its neighbours seed into it, and what each way of going on would take.
    class PatchOutlook
      Recheck = Core::Recheck
      AROUND = 0.0045 # degrees around it, about 500 m, in which patches of its plant seed into it
      NEIGHBOURS, MOST = 40, 10_000_000 # patches around, plants of one
      VISITS = 1..6
      FEWER, SOON = 100, 20 # futures and years where many patches are asked
      SEEDING = %w[reported standing regrowing].freeze

      attr_reader :patch, :stages

      # Raises Core::BadInput (field :plant) for a patch without a plant.
      def initialize(patch, today)
        raise Core::BadInput.new("An outlook is of a plant: name the patch first.", field: :plant) unless patch.plant

        @patch, @today = patch, today
        @stages = Recheck::Stages.new(patch.plant)
        @facts = patch.facts(today).with(**patch.history.standing.as_mapped)
      end

      # The Recheck::Outlook; changes: {parameter => {low, likely, high}} that somebody set.
      def outlook(horizon: Recheck::Outlook::HORIZON, clean: Recheck::Outlook::CLEAN, changes: {})
        stages = changes.empty? ? @stages : Recheck::Stages.new(patch.plant, changes:)
        stand = Recheck::Outlook::Stand.new(plants:, m2:, counted: counted?, past: past.map(&:last), now: now_counted,
                                            rain:)
        Recheck::Outlook.new(stages, stand, play(clean:, horizon:))
      end

      # Plants when it was first seen: as counted, else by its area; never less than were treated.
      def plants
        done = treatments.filter_map { |work| taken_on(work) }
        @plants ||= [effort.plants.to_f, *done].max.round.clamp(1, MOST)
      end

      # Was that counted?
      def counted? = !(@facts.plants || @facts.stems || treatments.filter_map(&:stems_done).first).nil?
      def m2 = [patch.gross_m2.to_f, 1.0].max
      def rates = @facts.rates || Core::Decide::Effort::RATES

      # [[year, Recheck::Outlook::Past]] from the first record to the last year that is over, or was worked in.
      def past
        @past ||= begin
          first = [*works.keys, *looks.keys].min
          last = works.key?(this_year) ? this_year : this_year - 1
          works.empty? ? [] : (first..last).map { |year| [year, told(works.fetch(year, []), looks.fetch(year, []))] }
        end
      end

      # What was counted this year where nobody worked yet; nil for nothing.
      def now_counted
        works.key?(this_year) || !looks.key?(this_year) ? nil : told([], looks.fetch(this_year))
      end

      # What a pass takes (Core::Decide::Effort), by the method that it is gone on with unless another is named.
      def effort(removal = removals.first) = Core::Decide::Effort.new(removal, @facts)

      # Times that it grows in a year if nobody comes, at least none and at most ten.
      def growth = @stages.growth_rate.clamp(1.0, 10.0)

      # The year, by the one in which its spring lies, that the futures begin with.
      def first_year = past.empty? ? this_year : past.last.first + 1

      # As the seed of how many plants its neighbours rain on it.
      def rain = Recheck::SeedRain.new(@stages).worth(neighbours.map { |one, m| [many(one), m] }, m2)

      # [[patch, metres]] of the same plant around, which bear seed.
      def neighbours
        @neighbours ||= begin
          west, south, east, north = patch.shape.bounds
          around = [west - AROUND, south - AROUND, east + AROUND, north + AROUND]
          near = patch.property.live_patches.unordered.within(around).exclude(id: patch.id)
                      .where(plant_key: patch.plant_key, state: SEEDING).limit(NEIGHBOURS).all
          near.map { |one| [one, patch.shape.distance(one.shape)] }.sort_by(&:last)
        end
      end

      # Methods that its plant's file names and that take it out, the last one used here first, then by what they kill;
      # cutting alone too, to show what it comes to, but last where it kills nothing.
      def removals
        @removals ||= begin
          named = patch.plant.removals.keys.map { |key| Core::Knowledge.shipped.removal(key) }
          named |= treatments.map(&:removal)
          tried = named.select { |one| one.removes? && (one.key == "cut_only" || @facts.kill(one)["likely"].positive?) }
          tried.sort_by do |one|
            kill = @facts.kill(one)["likely"]
            [kill.zero? ? 1 : 0, one.key == last_used ? 0 : 1, -kill] # what kills nothing is not gone on with
          end
        end.then { |found| found.empty? ? [Core::Knowledge.shipped.removal("hand_pull")] : found }
      end

      # A Recheck::Strategy of going on with a method.
      def strategy(removal, key: removal.key, **how)
        effort = effort(removal)
        hours = effort.hours || 0.0
        standing = [effort.plants.to_f, 1.0].max
        litres = effort.litres.to_f / standing
        besides = effort.cost ? [(effort.cost - (hours * rates.hour)) / standing, 0.0].max : 0.0
        Recheck::Strategy.new(key:, kill: kill(removal), visits: 1, hours: hours / standing, litres:, money: besides,
                              most: effort.task.by_size? ? nil : standing,
                              look: [hours * Core::Decide::Effort::SEARCH, 0.25].max,
                              seedling: @stages.seedling["seconds"] / 3600.0,
                              whole: [hours * @stages.seedling["whole"], 0.5].max,
                              tears: removal.tears?, wakes: removal.wakes?, **how)
      end

      # What it costs later to leave it alone this year: {hours:, money:, failed:} more, and hours this year; as it
      # stands.
      def skipping
        kept = strategy(removals.first)
        stand = Recheck::Outlook::Stand.new(plants: now, m2:, rain:)
        outlook = Recheck::Outlook.new(@stages, stand, play(futures: FEWER, horizon: SOON))
        goes, skips = outlook.compare([kept, kept.with(key: "skipped", skips: [0])])
        { hours: skips.hours[:mean] - goes.hours[:mean], money: skips.money[:mean] - goes.money[:mean],
          failed: skips.failed - goes.failed, now: goes.years.first.standing[2] * kept.hours }
      end

      # Plants as they stand now (PatchStanding).
      def now = many(patch).round.clamp(1, MOST)

      # Plants of another patch of its kind.
      def many(one) = [one.history.there(@today).state.plants, 1].max

      private

      def treatments = @treatments ||= patch.history.of(:treatment).select { |work| work.removal.removes? }
      def checks = patch.history.of(:check)
      def works = @works ||= treatments.group_by { |work| year_of(work.done_on) }
      def looks = @looks ||= checks.group_by { |look| year_of(look.on) }
      def this_year = @this_year ||= year_of(@today)
      def play(**how) = Recheck::Outlook::Play.new(hour_cost: rates.hour, seed: patch.id, **how)
      def share_of(record) = patch.history.standing.share_of(record)
      def last_used = treatments.last&.method_key

      def kill(removal)
        told = @facts.kill(removal)
        low, likely, high = told.values_at("low", "likely", "high").map { |percent| percent / 100.0 }
        Recheck::Stages::Spread.new(low:, likely:, high:, source: told["source"])
      end

      # A year begins with the site's.
      def year_of(date) = Core::Season::Year.start_of(date, patch.property.latitude).year

      # Plants that a look found, seedlings apart: stumps and roots that stand again, suckers, what was missed.
      def living(look) = look.resprouts + look.missed + look.suckers

      def taken_on(work) = (work.plants_done || work.stems_done)&.then { |count| count * share_of(work) }

      def told(works, looks)
        before = works.empty? || looks.none? { |look| look.on > works.first.done_on }
        look = (before ? looks.first : looks.last)
        Recheck::Outlook::Past.new(visit: visit(works), alive: look && (living(look) * share_of(look)).round,
                                   seedlings: looks.map { |one| (one.young * share_of(one)).round }.max, before:)
      end

      def visit(works)
        best = works.max_by { |work| @facts.kill(work.removal)["likely"] } or return

        late = works.all? { |work| Recheck::SeedFall::FELL.include?(work.seed_fall) }
        strategy(best.removal, visits: works.size.clamp(VISITS), late:)
      end
    end
  end
end
