# frozen_string_literal: true

require_relative "../test/known_stands"

module Thistle
  # Recheck at a size: an outlook, learning over 20 000 looks and by one more, a look kept and answered; and how often
  # the bands of an outlook hold stands whose parameters are known.
  class RecheckBench
    LOOKS = 20_000
    STANDS = 400

    def initialize(bench, property)
      @bench, @property = bench, property
      @today = Store::Setting.today
    end

    def run
      LOADER.eager_load # as the server does
      outlook
      learning
      look
      quiet
      bands
    end

    private

    def say(what, seconds, asked, beside = nil)
      puts format("%-52s %8.1f ms   (asked: under %s%s)", what, seconds * 1000, asked, beside ? "; #{beside}" : "")
    end

    def outlook
      plant = Core::Knowledge.shipped.plant("scotch_broom")
      kill = Core::Recheck::Stages::Spread.new(low: 0.8, likely: 0.92, high: 0.98, source: "memory")
      ways = [1, 2, 0].map do |visits|
        Core::Recheck::Strategy.new(key: visits.to_s, kill:, visits:, stirred: visits == 2, hours: 0.1, look: 1.0)
      end
      stand = Core::Recheck::Outlook::Stand.new(plants: 100, m2: 400.0)
      ask = -> { Core::Recheck::Outlook.new(Core::Recheck::Stages.new(plant), stand).compare(ways) }
      cold = @bench.clock { ask.call }
      again = @bench.time(5, &ask) * 1000
      say "500 futures × 40 years × 3 ways, the first time", cold, "400 ms", format("again %.0f ms", again)
    end

    def learning
      fill
      Store::Learned.instance_variable_set(:@known, nil)
      say "learning from #{LOOKS} looks", @bench.clock { Store::Learned.kills["amur_honeysuckle"] }, "500 ms"
      patch = Store::Patch.first(state: "standing")
      more = Array.new(5) do
        Store::Check.create(patch_id: patch.id, treatment_id: @works.sample, checked_on: @today, resprouts: 1,
                            missed: 0, seedlings: 0)
        @bench.clock { Store::Learned.kills[patch.plant_key] }
      end
      say "learning from one more", more.sort[2], "10 ms"
    end

    # So many treatments of the bench's patches, each with its look.
    def fill
      now = Time.now.utc
      random = Random.new(2)
      ids = @property.patches_dataset.unordered.where(Sequel.like(:code, "X-%")).limit(2000).select_map(:id)
      ids = @property.patches_dataset.unordered.select_map(:id) if ids.empty?
      first = Store::Treatment.max(:id) + 1
      works = Array.new(LOOKS) do |n|
        { id: first + n, patch_id: ids[n % ids.size], done_on: @today - 400 + (n % 200), crew_size: 2, hours: 1.0,
          method_key: %w[cut_stump hand_pull foliar_spot][n % 3], stems_done: 20 + (n % 30), created_at: now }
      end
      looks = works.map do |work|
        { patch_id: work[:patch_id], treatment_id: work[:id], checked_on: work[:done_on] + 40, missed: 0, seedlings: 0,
          resprouts: random.rand(8), created_at: now }
      end
      Store::Bulk.insert(:treatments, works)
      Store::Bulk.insert(:checks, looks)
      @works = works.first(50).map { |work| work[:id] }
    end

    def look
      patch = @property.patches_dataset.first(code: "Q-06") || Store::Patch.first(state: "hit")
      kept = Array.new(7) do |n|
        @bench.clock do
          Store::Check.record(patch, checked_on: @today - n, resprouts: 1, missed: 0, seedlings: 0)
          @bench.get("/survey/patches/#{patch.id}.json")
        end
      end
      say "a look kept and answered", kept.sort[3], "150 ms"
    end

    # Which of many quiet patches to look at, and the price of a year left out: pages that gather.
    def quiet
      many = @bench.clock { @bench.get("/recheck/quiet?hours=20") }
      say "which of #{Store::QuietLooks::MOST} quiet patches to look at", many, "2 s"
      skipped = @bench.clock { @bench.get("/recheck/skip") }
      say "a year left out, #{Web::Recheck::SkipBoard::MOST} patches", skipped, "5 s"
      say "the review of a year", @bench.clock { @bench.get("/recheck/review?year=2025") }, "1 s"
    end

    # Not a speed: whether the bands are as wide as they have to be.
    def bands
      stages = Core::Recheck::Stages.new(Core::Knowledge.shipped.plant("garlic_mustard"))
      held = KnownStands.new(stages, patches: STANDS).held
      puts format("%-52s %8.1f %%    (asked: 85 to 95)", "#{STANDS} known stands within their 90 % bands", held * 100)
    end
  end
end
