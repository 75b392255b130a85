# frozen_string_literal: true

module Thistle
  # Replant at the sizes that were asked for: a palette of 200 scored, a mix solved, 5 000 plugs laid out and drawn;
  # each beside what a plain loop over the same things takes.
  class ReplantBench
    PALETTE, PLUGS = 200, 5_000
    Replant = Core::Replant

    def initialize(bench, property)
      @bench, @property = bench, property
      @today = Store::Setting.today
    end

    def run
      LOADER.eager_load # as the server does
      palette
      mix
      layout
    end

    private

    def say(what, seconds, asked, beside)
      puts format("%-52s %8.1f ms   (asked: under %s; %s)", what, seconds * 1000, asked, beside)
    end

    def sheet
      said = { light: "sun", moisture: "moist", soil: "loam", ph: 6.5, deer: "yes", jobs: %w[ground_cover nectar] }
             .transform_values { |value| Replant::SiteSheet::Said.new(value:, from: "said", source: "own_records") }
      place = Replant::Native::Place.new(region: "na_midwest", latitude: 38.0, longitude: -91.0)
      Replant::SiteSheet.new(said, place:, m2: 1000.0)
    end

    def natives = @natives ||= Core::Knowledge.shipped.palette.values.cycle.first(PALETTE)

    def palette
      asked = sheet
      scored = @bench.time(20) { Replant::Palette.new(asked, natives:).matches }
      plain = @bench.time(20) { natives.select { |one| one.light.include?("sun") && one.moisture.include?("moist") } }
      times = format("%.0f × a plain filter", scored / plain)
      say "#{PALETTE} natives scored with their reasons", scored, "10 ms", times
    end

    def mix
      asked = sheet
      candidates = Replant::Palette.new(asked).matches.select { |match| match.native.sown? }.map do |match|
        Replant::PlantMix::Candidate.new(native: match.native, score: match.score, months: match.native.bloom)
      end
      wish = Replant::PlantMix::Wish.new(kinds: 14, grass: [0.3, 0.5], most: 0.2, locks: [], bans: [])
      solve = -> { Replant::PlantMix.new(candidates, wish, months: (4..10).to_a, jobs: asked.jobs, m2: 1000.0).answer }
      proved = solve.call.proved ? "proved best" : "not proved best"
      say "a mix of 14 out of #{candidates.size}, solved", @bench.time(5, &solve), "2 s", proved
    end

    def layout
      side = Math.sqrt(PLUGS * 0.866 * 0.16)
      bed = Replant::Bed.new([[[0, 0], [side, 0], [side, side], [0, side], [0, 0]]])
      kinds = Array.new(10) do |n|
        Replant::Layout::Kind.new(key: n.to_s, share: 0.1, spacing: 0.4, height_cm: 20 * (n + 1), grassy: n > 6)
      end
      plants = Replant::Layout.new(bed, kinds, front: 180).plants
      seconds = @bench.time(5) { Replant::Layout.new(bed, kinds, front: 180).plants }
      bare = @bench.time(5) { bed.lattice(0.4) }
      times = format("%.0f × the bare lattice", seconds / bare)
      say "#{plants.size} plugs of 10 kinds laid out", seconds, "300 ms", times
      picture
    end

    # One picture of a bed so large, through the page that draws it.
    def picture
      patch = Store::Patch.where(property_id: @property.id).exclude(gross_m2: nil).order(Sequel.desc(:gross_m2)).first
      natives = Core::Knowledge.shipped.palette.values_at("little_bluestem", "wild_bergamot", "black_eyed_susan")
      mix = natives.map { |native| Store::PlantingPlan::Item.new(native:, share: 1 / 3.0, spacing_m: 0.4, count: 1) }
      area_m2 = PLUGS * 0.866 * 0.16
      plan = Store::PlantingPlan.make(patch, kind: "plugs", area_m2:, mix:, said: {}, today: @today)
      body = nil
      drawn = @bench.time(3) { body = @bench.get("/replant/plans/#{plan.id}/plan.svg").body }
      count = plan.laid_out[:plants].size
      say "#{count} plugs drawn as one picture", drawn, "400 KB",
          format("%.0f KB, %.0f bytes a plant", body.bytesize / 1024.0, body.bytesize / count.to_f)
    end
  end
end
