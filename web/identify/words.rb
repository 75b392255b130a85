# frozen_string_literal: true

module Thistle
  module Web
    module Identify
      # A plant's life in plain sentences, from the words of its file, for one property: its region, its units.
      class Words
        include Web::Words

        FORMS = { vine: "A vine", tree: "A tree", shrub: "A shrub", herb: "A leafy herb", mat: "A mat on the ground",
                  grass: "A grass or grass-like plant", fern: "A fern", aquatic: "A water plant" }.freeze
        SPANS = { annual: "that lives one season", biennial: "that leafs one year, seeds the next and dies",
                  perennial: "that lives for years" }.freeze
        KINDS = { evergreen: "green all year", thorny: "armed", climbing: "climbing", submersed: "under water" }.freeze
        WAYS = { stump_sprouts: "sprouts from the stump", root_suckers: "suckers from the roots",
                 crown_sprouts: "sprouts from the crown",
                 layers: "roots where stems touch the ground", fragments_root: "grows from pieces of root or stem",
                 seeds: "comes up from seed in the ground" }.freeze
        SPREAD = { "wind" => "on the wind", "water" => "with water",
                   "birds" => "by birds and other animals that eat the fruit",
                   "ballistic" => "by pods that burst",
                   "boots" => "on boots and coats", "vehicles" => "on wheels and machines", "mowers" => "on mowers",
                   "hay" => "in hay and straw",
                   "gardens" => "out of gardens and dumped cuttings", "fragments" => "by pieces that root",
                   "boats" => "on boats and trailers" }.freeze

        TONGUES = { "mi" => "Māori", "cy" => "Welsh", "ga" => "Irish", "es" => "Spanish", "fr" => "French",
                    "pt" => "Portuguese", "af" => "Afrikaans" }.freeze

        # What people of the property's region call a plant, where it is another name; nil for none.
        def called_here(plant) = Core::Knowledge.shipped.called(plant.key, @property.region)

        # [[who says so, language or nil, [names]]]: this region first, then other regions, then tongues.
        def names_elsewhere(plant)
          told = Core::Knowledge.shipped.names.fetch(plant.key, {})
          regions = told.fetch("regions", {}).sort_by { |region, _| region == @property.region ? 0 : 1 }
          regions.map { |region, name| [Core::Knowledge.shipped.region_names.fetch(region), nil, [name]] } +
            told.fetch("tongues", {}).map { |lang, names| [TONGUES.fetch(lang), lang, names] }
        end

        # What a plant is in a region: the tag's hue and words.
        BELONGS = { weed: %w[clay invasive], native: %w[moss native], both: ["ochre", "native and weed"],
                    harmless: %w[stone harmless],
                    elsewhere: ["stone", "not known here"] }.freeze

        def initialize(property)
          @property, @units = property, property.measures
        end

        # What a plant is in the property's region, or in another.
        def status_tag(plant, region: @property.region)
          hue, words = BELONGS.fetch(plant.belongs(region))
          %(<span class="tag #{hue}">#{words}</span>)
        end

        # Why a plant is reported before anyone removes it.
        def early_reason(plant)
          return "It is on #{@property.name}'s watch list." if @property.watched?(plant)

          "The library has no record of this plant in #{Core::Knowledge.shipped.region_names.fetch(@property.region)}."
        end

        def way_of_life(plant)
          span = SPANS.find { |trait, _| plant.is?(trait) }&.last
          extra = KINDS.select { |trait, _| plant.is?(trait) }.values
          "#{[FORMS.fetch(plant.form), span].compact.join(" ")}#{", #{extra.join(", ")}" if extra.any?}."
        end

        def way_back(plant)
          ways = WAYS.select { |trait, _| plant.is?(trait) }.values
          ways.empty? ? "It does not grow back once the root is out." : "It #{sentence(ways)}."
        end

        def ways_of_spread(plant) = "It travels #{sentence(plant.dispersal["by"].map { |way| SPREAD.fetch(way) })}."

        def where_it_grows(plant)
          names = Core::Knowledge.shipped.region_names
          { "invasive" => "A weed in", "native" => "At home in" }.filter_map do |kind, words|
            list = plant.regions[kind]&.map { |region| names.fetch(region) }
            "#{words} #{sentence(list, joint: "; ")}." if list
          end.join(" ")
        end

        # A measured range in the property's units: "3 to 9 cm", "1.2 to 3.5 in".
        def said_range(character, range)
          range.values_at("low", "high").map { |n| in_units(character, n) }.join(" to ") + unit_after(character)
        end

        # One answer in the property's units.
        def said_answer(character, answer)
          if character.measured?
            "about #{in_units(character, answer.to_f)}#{unit_after(character)}"
          else
            character.say(answer)
          end
        end

        private

        def in_units(character, number)
          number /= Desk::INCH.fetch(character.unit) if @units.us?
          number.round(2).to_s.delete_suffix(".0")
        end

        def unit_after(character)
          return "" if character.unit == "count"

          @units.us? ? " in" : " #{character.unit}"
        end

        def sentence(words, joint: ", ")
          *rest, last = words
          rest.empty? ? last.to_s : "#{rest.join(joint)} and #{last}"
        end
      end
    end
  end
end
