# frozen_string_literal: true

module Thistle
  # Mix at a size: a bench's answer, and a label's year on one patch of a property with 20 000 applications.
  class MixBench
    APPLICATIONS = 20_000

    def initialize(bench, property)
      @bench, @property = bench, property
      @db = Sequel::Model.db
    end

    def run
      bench
      year
    end

    private

    def bench
      product = Core::Mix::Product.planned(Core::Knowledge.shipped.actives["glyphosate_ipa"])
      ours = @bench.time { answer(product) }
      bare = @bench.time { 500.0 * 20 / 41 }
      puts format("%-52s %8.3f ms   (asked: under 3 ms; the division alone %.5f ms)", "a jar, in core", ours * 1000,
                  bare * 1000)
      path = "/mix?stems=40&target=20"
      @bench.get(path)
      page = @bench.time { @bench.get(path) }
      puts format("%-52s %8.1f ms   (asked: under 60 ms)", "the same, the page", page * 1000)
    end

    def answer(product)
      strength = Core::Mix::Strength.read(20.0, "active", product)
      Core::Mix::Blend.new(doses: [Core::Mix::Blend::Dose.new(product:, strength:)], total_ml: 500.0).mixture
    end

    def year
      patch = Store::Patch.first(code: "Q-05")
      product_id = Store::Product.first(name: "Stump concentrate").id
      near = Store::Patch.within([patch.west, patch.south, patch.east, patch.north]).select_map(:id)
      fill(product_id, near)
      few = totals(patch)
      fill(product_id, @db[:patches].exclude(id: near).select_map(:id))
      many = totals(patch)
      @bench.say "the label's year, #{APPLICATIONS} applications", many, "the same with those beside it alone", few, 2
      puts format("%-52s %8.1f ms   (asked: under 150 ms)", "the same", many * 1000)
    end

    def totals(patch) = @bench.time { Store::Applications.new(patch, 2026).totals }

    # One application on each patch.
    def fill(product_id, ids)
      now = Time.now.utc
      rows = ids.first(APPLICATIONS).each_with_index.map do |patch_id, n|
        { patch_id:, done_on: Date.new(2026, 1, 1) + (n % 120), method_key: "cut_stump",
          active_key: "glyphosate_ipa", product_id:, product_ml: 10.0, mix_ml: 20.0, stems_done: 20, created_at: now }
      end
      @db.transaction { rows.each_slice(500) { |slice| @db[:treatments].multi_insert(slice) } }
    end
  end
end
