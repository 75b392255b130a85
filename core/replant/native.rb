# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # A native as replanting sees it: the site that it likes, its size, stock and manners. Its facts stand in its own
      # file, under `replant`; each is on the word of `source`.
      class Native
        LIGHTS = { "sun" => "sun", "part" => "part shade", "shade" => "shade" }.freeze
        MOISTURES = { "dry" => "dry", "moist" => "moist", "wet" => "wet", "water" => "in water" }.freeze
        SOILS = { "sand" => "sand", "loam" => "loam", "clay" => "clay" }.freeze
        JOBS = { "ground_cover" => "ground cover", "screen" => "screen", "slope" => "holds a slope", "shade" => "shade",
                 "climber" => "climber", "nectar" => "nectar", "fruit" => "fruit", "winter_green" => "green in winter",
                 "water_habitat" => "water habitat" }.freeze
        WILDLIFE = { "bees" => "bees", "butterflies" => "butterflies and moths", "caterpillars" => "feeds caterpillars",
                     "nectar_birds" => "nectar for birds", "seed_birds" => "seed or fruit for birds",
                     "cover" => "cover and nests", "mammals" => "food for mammals",
                     "water_life" => "frogs, fish and dragonflies" }.freeze
        STOCK = { "seed" => "seed", "plugs" => "plugs", "pots" => "pots", "stakes" => "live stakes",
                  "divisions" => "divisions", "tubers" => "tubers", "bare_root" => "bare root" }.freeze
        SPREADS = { "clumps" => "stays where it is put", "runs_slowly" => "runs slowly", "runs" => "runs",
                    "runs_hard" => "runs hard" }.freeze
        ROOTS = { "fibrous" => "fibrous", "tap" => "taproot", "rhizome" => "rhizomes", "runners" => "runners",
                  "crown" => "a crown", "bulb" => "tubers", "suckers" => "suckering", "woody" => "woody",
                  "deep" => "deep and woody" }.freeze
        FORMS = { "herb" => "flower", "grass" => "grass", "sedge" => "sedge or rush", "fern" => "fern",
                  "shrub" => "shrub", "tree" => "tree", "vine" => "climber", "aquatic" => "water plant" }.freeze
        LAYERS = { "floor" => "floor", "herb" => "knee-high", "tall" => "chest-high", "shrub" => "shrubs",
                   "tree" => "trees", "climber" => "climbers", "water" => "water" }.freeze
        NEEDS = { "none" => "sprouts without more", "cold_moist" => "a cold moist spell",
                  "double_dormancy" => "warm, then cold: two winters", "scarify" => "its coat broken",
                  "sow_fresh" => "sown fresh", "after_ripen" => "months of dry rest", "smoke" => "smoke",
                  "plants_only" => "plants, not seed" }.freeze
        # country, part: as Survey::Borders finds them; climate: a key of climates; nil where nobody knows.
        Place = Value.define(:region, :latitude, :longitude, :country, :part, :climate)

        # at_home: Home.
        attr_reader :key, :name, :scientific, :family, :also, :within, :looks_like, :at_home, :regions

        # data: a file of natives/ or palette/; alike: keys of invaders that it is taken for.
        def initialize(key, data, alike: [])
          @key, @facts = key, data.fetch("replant")
          @name, @scientific, @family, @within = data.values_at("name", "scientific", "family", "within")
          @also = data.fetch("also", [])
          @regions = data.fetch("regions")
          @at_home = Home.new(data.fetch("home"), @regions.fetch("native", []), within:)
          @looks_like = (@facts.fetch("looks_like", []) | alike).freeze
          freeze
        end

        %w[light moisture soil ph jobs form height_cm width_cm spacing_cm roots bloom colour evergreen wildlife stock
           seeds_per_g seeds_per_m2 germination spreads self_seeds deer plant_in caution text source]
          .each { |name| define_method(name) { @facts[name] } }

        def inspect = "#<#{self.class.name} #{key}>"
        # A grass that grows in the heat, and whose seed wants warm ground.
        def warm_season? = @facts.fetch("warm_season", false)
        # Has its seed to lie cold and moist before it sprouts?
        def cold_moist? = germination["cold_days"].to_i.positive?
        def salt? = @facts.fetch("salt", false)
        def burns? = @facts.fetch("burns", false)
        def sexes_apart? = @facts.fetch("sexes_apart", false)
        def text_source = @facts.fetch("text_source", source)
        def sources = [source, text_source, within&.fetch("source")].compact

        # Can it be sown, at a rate that is known?
        def sown? = stock.include?("seed") && !seeds_per_m2.nil?

        # Can it be planted?
        def planted? = stock != ["seed"]
        def grassy? = %w[grass sedge].include?(form)
        # Does it flower for anything that looks for flowers?
        def showy? = bloom.any? && !grassy?
        def woody? = %w[shrub tree vine].include?(form)

        # The layer that it fills, by form and height.
        def layer
          return "water" if moisture.first == "water"
          return { "shrub" => "shrub", "tree" => "tree", "vine" => "climber" }[form] if woody?

          return "floor" if height_cm <= 30

          height_cm <= 90 ? "herb" : "tall"
        end

        # What it is for in a mix: "matrix" (grasses and sedges that close the ground), "structure" (tall, few of them),
        # "filler" (seeds itself, short-lived cover), else "season": a flower in its months.
        def role
          return "structure" if height_cm > 110
          return "matrix" if grassy?

          self_seeds == "hard" ? "filler" : "season"
        end

        # What it is at a Place: :home, :nearby (at home in the region, or the one next to it, but not in this part of
        # it), :weed, or nil.
        def at(place)
          return :weed if @regions.fetch("invasive", []).include?(place.region)
          return :home if at_home.include?(place)

          :nearby if [place.region, *region(place.region)&.beside].intersect?(home)
        end

        # Months of bloom at a latitude: the file gives them for where it is at home, half a year apart across the
        # equator.
        def blooms(latitude)
          return bloom if latitude.to_f.negative? == southern? || bloom.empty?

          bloom.map { |month| ((month + 5) % 12) + 1 }
        end

        # The regions in which it is at home.
        def home = @regions.fetch("native", [])

        private

        def southern? = region(home.first)&.south?
        def region(key) = Knowledge.shipped.regions[key]
      end
    end
  end
end
