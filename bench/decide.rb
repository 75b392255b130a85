# frozen_string_literal: true

module Thistle
  # Decide: verdicts, what would change them, 2 000 patches ranked, a season of 300 patches and 40 weeks.
  class DecideBench
    D = Core::Decide
    PLANTS = %w[amur_honeysuckle tree_of_heaven french_broom caltrop buffelgrass himalayan_blackberry garlic_mustard
                oriental_bittersweet].freeze
    PATCHES, WEEKS, SEEDS = 300, 40, [1, 2, 3].freeze
    ASKED = { settled: true, size: "thumb", stance: "any", licensed: true, aquatic_label: false, water_m: 300.0,
              slope: "flat", natives_near: true,
              cover: 15, stems: 40, area_m2: 200.0 }.freeze
    SOLVED = "season plan, %d patches x %d weeks, %d options: %.1f s, at most %.1f %% under the best, " \
             "greedy %.1f %% under it in %.2f s " \
             "(asked: 1 %% in 10 s, or say the gap)"

    def initialize(bench, property)
      @bench, @property = bench, property
      @site = property.site(Store::Setting.today)
    end

    def run
      verdicts
      rank
      plan
    end

    private

    def asked(plant)
      D::Bench.new(D::Facts.new(plant: Core::Knowledge.shipped.plant(plant), date: @site.today, **ASKED), @site)
    end

    # Beside a bench that asks every rule once and looks no further ahead.
    def verdicts
      PLANTS.each { |plant| asked(plant).verdicts }
      all = PLANTS.map { |plant| @bench.time(9) { asked(plant).verdicts } }
      once = PLANTS.map do |plant|
        @bench.time(9) { asked(plant).tap { |bench| bench.removals.each { |removal| bench.kind(removal) } } }
      end
      changes = PLANTS.map do |plant|
        bench = asked(plant)
        bench.verdicts
        @bench.time(9) do
          D::Changes.new(bench).then { |changes| bench.verdicts.each { |verdict| changes.of(verdict.removal) } }
        end
      end
      say "all verdicts of a patch, worst of #{PLANTS.size} plants", all.max, once.max, "asking every rule once",
          "under 10"
      say "what would change each of them, worst", changes.max, all.max, "the verdicts", "under 60"
    end

    # 2 000 open patches of the bench's own property, as the page ranks them, and a drag of one weight.
    def rank
      today = Store::Setting.today
      kept = Core::Kept.new(500)
      weights = Core::Knowledge.shipped.goals["stop_spread"].weights
      Store::Ranking.new(@property, today, kept:).candidates
      candidates = nil
      read = @bench.time(5) { candidates = Store::Ranking.new(@property, today, kept:).candidates }
      bare = @bench.time(5) do
        Store::Patch.wanting_work.where(property_id: @property.id).for_agenda.eager(:treatments).all
      end
      D::Priority.new(candidates, weights).rows
      drag = @bench.time(5) { D::Priority.new(candidates, weights).rows }
      say "#{candidates.size} patches read and ranked", read + drag, bare, "reading their rows", "under 400"
      say "of which the ranking", drag, bare, "reading their rows", "under 400"
      @bench.get("/decide/first?at=#{@property.id}")
      say "the page of it", @bench.time(5) { @bench.get("/decide/first") }, bare, "reading their rows", "-"
    end

    def plan
      SEEDS.each do |seed|
        plan = D::Plan.new(options(Random.new(seed)), limits)
        answer = nil
        seconds = @bench.clock { answer = plan.solve }
        greedy = @bench.clock { plan.greedy }
        raise "below greedy" if answer.gain < answer.greedy_gain

        puts format(SOLVED, PATCHES, WEEKS, plan.options.size, seconds, answer.gap * 100,
                    100 * (1 - (answer.greedy_gain / answer.bound)), greedy)
      end
    end

    def limits = D::Plan::Limits.new(hours: [24.0] * WEEKS, litres: 60.0, cost: nil)

    # Work of 1 to 20 hours, windows of 4 to 20 weeks, three methods each.
    def options(random)
      (0...PATCHES).flat_map do |patch|
        opens, long = random.rand(0..20), random.rand(4..20)
        hours, gain = random.rand(1.0..20.0), random.rand(20.0..100.0)
        3.times.flat_map do |method|
          takes = hours * random.rand(0.5..1.5)
          share = random.rand(0.6..0.98)
          ((opens + method)..[opens + method + long, WEEKS - 1].min).map do |week|
            parts = (takes / 24).ceil
            D::Plan::Option.new(patch:, method:, week:, parts:, hours: takes / parts,
                                litres: method == 1 ? takes * 0.1 / parts : 0.0,
                                cost: takes * 25 / parts, gain: gain * share * (1 - (0.004 * week)) / parts)
          end
        end
      end
    end

    def say(what, ours, other, baseline, asked)
      puts(format("%-52s %8.1f ms   %4.1f times %s, %.1f ms (asked: %s)", what, ours * 1000, ours / other, baseline,
                  other * 1000, asked))
    end
  end
end
