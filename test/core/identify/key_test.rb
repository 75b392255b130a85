# frozen_string_literal: true

require "test_helper"

module Thistle
  class KeyTest < Minitest::Test
    Key = Core::Identify::Key

    # The commonest state of each character that can be seen on a date, the middle of each range.
    def described(plant, date)
      mixture = Core::Identify::Mixture.new(plant, Testing.site.calendar(plant), date)
      shown = mixture.visible(Core::Knowledge.shipped.aspects["grown"])
      plant.characters.keys.map { |name| Core::Knowledge.shipped.characters[name] }
           .select { |character| character.shows == "leaf" || shown.fetch(character.shows, 1.0) > 0.5 }
           .to_h { |character| [character.key, character.answer_in(character.shares(plant).max_by(&:last).first)] }
    end

    def key(seen = nil, date: Testing::TODAY, **more)
      Key.new(seen || more.except(:region, :absent), site: Testing.site, date:, **more.slice(:region, :absent))
    end

    # Bayes by hand for one answer: each weight is (1 - e) x share + e / states, then all are scaled to 1. A tenth of
    # each share is taken for the states beside it: of yellow and pale wood for each other, of yellow for orange.
    def test_one_answer_by_hand
      states, error = 3, 0.05
      always, never, usually, sometimes = 0.96, 0.005, 0.75, 0.3
      chance = ->(yellow, pale, orange, whole) do
        read = (0.9 * yellow) + (0.1 * pale) + (0.1 * orange) # pale and orange lie beside yellow alone
        ((1 - error) * read / whole) + (error / states)
      end
      barberry_ = chance[always, never, never, always + (2 * never)]
      cherry_ = chance[never, usually, sometimes, usually + sometimes + never]
      asked = key("inner_wood" => "yellow")
      barberry, cherry = %w[american_barberry black_cherry].map { |plant| asked.probability(Testing.plant(plant)) }

      assert_in_delta barberry_ / cherry_, barberry / cherry, 1e-9
      assert_in_delta 1.0, asked.weights.values.sum + asked.unlisted, 1e-12
    end

    # A typed number falls into a stretch; a range is laid over the stretches on a logarithmic scale. By hand:
    # buffelgrass blades of 4 to 9 mm, with 10 % slack 3.64 to 9.9, over edges 3, 6, 10: ln(6/3.64) and ln(9.9/6) of
    # ln(9.9/3.64).
    def test_a_number_by_hand
      character = Core::Knowledge.shipped.characters["blade_width"]
      shares = character.shares(Testing.plant("buffelgrass"))
      whole = Math.log(9.9 / (4 / 1.1))
      raw = [Math.log(6 / (4 / 1.1)) / whole, Math.log(9.9 / 6) / whole].map { |share| share + 0.005 }

      assert_in_delta raw[0] / (raw.sum + (4 * 0.005)), shares["1"], 1e-9
      assert_equal %w[0 1 2 5], %w[2.9 3 7 400].map { |typed| character.state_of(typed) }
      %w[-1 0 wide 1e9].each { |typed| assert_raises(Core::BadInput) { character.state_of(typed) } }
    end

    def test_what_is_ruled_out_counts
      opposite = { "leaf_arrangement" => %w[opposite whorled] }
      plain, ruled = key("habit" => "shrub"), key({ "habit" => "shrub" }, absent: opposite)
      amur, spice = %w[amur_honeysuckle spicebush].map { |name| Testing.plant(name) }

      assert_operator ruled.probability(amur), :<, plain.probability(amur) / 4
      assert_operator ruled.probability(spice), :>, plain.probability(spice)
    end

    # Region and season: a plant of another continent, and one that has died back, are hardly expected.
    def test_place_and_month_are_weighed
      here, anywhere = key("habit" => "grass", region: "na_midwest"), key("habit" => "grass")
      gamba = Testing.plant("gamba_grass")
      celandine = Testing.plant("lesser_celandine")

      assert_operator here.probability(gamba), :<, anywhere.probability(gamba) / 5
      assert_operator key("habit" => "herb", date: Date.new(2026, 8, 20)).probability(celandine), :<,
                      key("habit" => "herb").probability(celandine) / 3
    end

    def test_the_order_of_looks_does_not_matter
      seen = { "habit" => "shrub", "pith" => "hollow", "leaf_margin" => "smooth" }

      assert_equal key(seen).candidates.map(&:plant), key(seen.to_a.reverse.to_h).candidates.map(&:plant)
    end

    def test_a_mistake_is_forgiven
      seen = { "habit" => "herb", "smell" => "garlic", "leaf_type" => "simple", "petals" => "four",
               "flower_colour" => "white",
               "leaf_shape" => "narrow" }

      assert_equal "garlic_mustard", key(seen, region: "na_midwest").top.plant.key
    end

    # Every plant, described as its file says on a day in its flower (or leaf), comes out first; all but a few, which
    # stand beside one much like them, settle.
    def test_every_plant_is_found_from_its_own_description
      open = Core::Knowledge.shipped.plants.values.reject do |plant|
        spans = Core::Season::Phenology.new(plant, Testing.site).spans(Testing.site.year)
        span = spans.find { |one| one.phase == :flower } || spans.first
        date = span.from + ((span.to - span.from) / 2).to_i
        asked = key(described(plant, date), date:)

        assert_equal plant.key, asked.top.plant.key
        asked.settlement.settled?
      end

      assert_operator open.size, :<=, 5, open.map(&:key).join(", ")
    end

    # Four bush honeysuckles that cannot be told apart without a bract are one name, and worked alike; with what
    # decides, the one of them; where one of a group belongs, it is no answer.
    def test_plants_that_are_handled_alike_are_settled_as_a_group
      seen = { "habit" => "shrub", "leaf_arrangement" => "opposite", "leaf_margin" => "smooth", "bark" => "shaggy",
               "pith" => "hollow", "flower_colour" => "white", "leaf_type" => "simple", "petals" => "lipped",
               "twig" => "brown", "thorns" => "none", "fruit_colour" => "red" }
      asked = Key.new(seen, site: Testing.site, date: Date.new(2026, 6, 1), region: "na_midwest")

      refute_predicate asked.settlement, :settled?
      assert_equal "bush_honeysuckles", asked.settlement.group&.key, asked.settlement.reasons.join("\n")
      assert_operator asked.settlement.probability_of(asked.settlement.group), :>=, Key::SETTLED_AT
      assert_nil key({}).settlement.group
      buckthorns = Core::Knowledge.shipped.groups["buckthorns"]

      assert(buckthorns.weeds_in?("na_midwest", Core::Knowledge.shipped))
      refute(buckthorns.weeds_in?("british_isles", Core::Knowledge.shipped), "they belong there")
      assert_equal %w[poison_eaten thorns], buckthorns.hazards(Core::Knowledge.shipped).sort, "of either of them"
    end

    def test_groups_are_handled_alike_by_every_method
      table = Core::Knowledge::Effects.new(Core::Knowledge.shipped).rows.to_h { |plant, effects| [plant.key, effects] }
      same = { not_offered: :pointless } # neither is done
      Core::Knowledge.shipped.groups.each_value do |group|
        told = group.plants.map { |key| table.fetch(key).transform_values { |effect| same.fetch(effect, effect) } }

        assert_empty(told.first.keys.select { |method| told.map { |one| one[method] }.uniq.size > 1 }, group.key)
        hazards = group.plants.map { |key| Core::Knowledge.shipped.plant(key).hazards & Core::Plant::WARNED }

        assert_equal 1, hazards.uniq.size, group.key
      end
    end

    HONEYSUCKLE = { "habit" => "shrub", "leaf_arrangement" => "opposite", "leaf_margin" => "smooth",
                    "bark" => "shaggy" }.freeze

    def test_not_settled_without_the_deciding_character
      settlement = key(HONEYSUCKLE).settlement

      refute_predicate settlement, :settled?
      assert_match(/Cut twig.*has not been seen to fit/, settlement.reasons.join(" "))
      assert_includes settlement.photographs, "cut twig"
      more = HONEYSUCKLE.merge("pith" => "hollow", "leaf_tip" => "long", "flower_stalk" => "short",
                               "flower_colour" => "white", "leaf_shape" => "pointed")

      assert_empty key(more).settlement.reasons
    end

    # Which answers fight, and which plant each favours.
    def test_a_contradiction_keeps_it_open_and_says_which_answers_fight
      seen = HONEYSUCKLE.merge("pith" => "hollow", "leaf_tip" => "long", "flower_stalk" => "short",
                               "thorns" => "hooked")
      settlement = key(seen).settlement

      assert_match(/Thorns or spines speaks against Amur honeysuckle/, settlement.reasons.join)
      fights = settlement.fights.to_h { |fight| [fight.character.key, fight.plant.key] }

      assert_equal "amur_honeysuckle", fights["pith"]
      assert_includes %w[lantana himalayan_blackberry multiflora_rose mimosa], fights["thorns"]
      assert_empty key(HONEYSUCKLE).settlement.fights
    end

    # What a look is expected to save, the long way round: entropy before, less the entropy after each answer by Bayes'
    # rule times the chance of that answer, over the plants that still count (none leads yet, so no strangers).
    def test_the_next_look_saves_doubt_and_says_what_each_answer_means
      asked = key(HONEYSUCKLE)
      counting = asked.likely.map { |n| [asked.probabilities[n], n] }
      total = counting.sum(&:first)
      entropy = ->(weights) { -weights.sum { |w| (w / weights.sum) * Math.log2(w / weights.sum) } }
      rows = asked.chances.rows("petals").values
      answers = rows.map { |row| counting.map { |p, n| p * row[n] / total } }
      after = answers.sum { |weights| weights.sum * entropy.call(weights) }
      look = Core::Identify::Look.new(asked, Core::Knowledge.shipped.characters["petals"])

      assert_in_delta entropy.call(counting.map(&:first)) - after, look.gain, 1e-9
      assert_operator asked.next_look.worth, :>=, asked.looks.last.worth
    end

    # What every look that is offered says of every answer, beside a key that was given that answer.
    def test_what_an_answer_would_mean_is_what_it_means
      [HONEYSUCKLE, { "habit" => "shrub" }, { "habit" => "vine", "leaf_arrangement" => "opposite" }].each do |seen|
        key(seen).looks.each do |look|
          look.outcomes.each do |outcome|
            after = key({ **seen, look.character.key => look.character.answer_in(outcome.state) }).top

            assert_equal after.plant.key, outcome.leader.key, [seen, look.character.key, outcome.state]
            assert_in_delta after.probability, outcome.probability, 1e-12
          end
        end
      end
    end

    def test_winter_asks_for_no_flowers_and_summer_for_no_winter_leaf
      looks = ->(date) { key({ "habit" => "shrub" }, date:).looks.map { |look| look.character.key } }
      winter, summer = looks[Date.new(2026, 1, 15)], looks[Date.new(2026, 7, 15)]

      refute_includes winter, "flower_colour"
      assert_includes winter, "winter_leaf"
      assert_includes winter, "bark"
      refute_includes summer, "winter_leaf"
    end

    # A rosette of hogweed, a hemlock without spots: the caution shows at every stage, and where the name is only among
    # the first.
    def test_a_plant_that_harms_is_warned_of_before_it_leads
      rosette = { "habit" => "herb", "height" => "120", "leaf_type" => "three", "leaf_margin" => "toothed",
                  "stem_tint" => "spotted" }
      plain = { "habit" => "herb", "petals" => "five", "flower_cluster" => "umbel", "flower_colour" => "white",
                "stem_tint" => "green", "leaf_type" => "twice" }
      parsnip = { "habit" => "herb", "flower_cluster" => "umbel", "flower_colour" => "yellow", "leaf_type" => "three" }
      seen = [[rosette, "na_midwest"], [plain, "na_southeast"], [parsnip, "na_midwest"]]
      keys = seen.map { |looks, region| key(looks, date: Date.new(2026, 6, 10), region:) }

      assert_equal "giant_hogweed", keys.first.top.plant.key
      named = [%w[giant_hogweed], %w[poison_hemlock water_hemlock], %w[wild_parsnip]]
      named.zip(keys) { |names, asked| assert_empty names - asked.hazards.map(&:key) }
      keys.each { |asked| assert_includes asked.withheld.map(&:touch), "feel" }
    end

    # A native of one continent is a weed on another; an invader that is at home is none; a stranger is told to be
    # reported.
    def test_what_belongs_is_said_by_region
      said = { %w[boxelder australia] => :weed, %w[boxelder na_midwest] => :native, ["boxelder", nil] => :native,
               %w[purple_loosestrife australia] => :native,
               %w[yellow_archangel british_isles] => :both, %w[stinging_nettle na_midwest] => :native,
               %w[garlic_mustard na_desert] => :elsewhere,
               %w[buttonbush british_isles] => :elsewhere, %w[wild_carrot na_west] => :harmless,
               ["kudzu", nil] => :weed }

      said.each do |(plant, region), belongs|
        assert_equal belongs, Testing.plant(plant).belongs(region), "#{plant} in #{region}"
      end
      weeds = %w[garlic_mustard buttonbush].map { |key| Testing.plant(key) }
      assert_equal([true, false], weeds.map { |plant| plant.weed_in?("na_desert") && plant.invasive? })
    end

    # Poison ivy, hogweed and their like are never to be touched, crushed or cut to be told; tree-of-heaven not crushed.
    def test_nobody_is_asked_to_crush_a_plant_that_may_harm
      [{ "habit" => "vine", "leaf_type" => "three" }, { "flower_cluster" => "umbel", "habit" => "herb" }].each do |seen|
        asked = key(seen, date: Date.new(2026, 6, 20))

        assert(asked.hazards.any?(&:grave?))
        assert_empty asked.looks.filter_map { |look| look.character.touch }, seen.to_s
        assert_includes asked.withheld.map(&:key), "sap"
      end
      tree = key({ "habit" => "tree", "leaf_type" => "pinnate" }, region: "na_midwest")

      assert_empty tree.looks.map { |look| look.character.touch } & %w[crush break]
    end

    # In January no flower tells a honeysuckle from its native; what the twig shows does.
    def test_a_duel_of_a_day_has_what_is_there_to_see_first
      pair = [Testing.plant("amur_honeysuckle"), Testing.plant("coralberry")]
      rows = Core::Identify::Duel.new(*pair, site: Testing.site, date: Date.new(2026, 1, 15)).rows.reject(&:deciding)
      hidden = rows.reject(&:shown).map { |row| row.character.key }

      assert_includes hidden, "flower_width"
      assert_equal rows.sort_by.with_index { |row, n| [row.shown ? 0 : 1, n] }, rows
      assert(Core::Identify::Duel.new(*pair).rows.all?(&:shown), "without a day")
    end

    def test_duel_puts_what_decides_first
      duel = Core::Identify::Duel.new(Testing.plant("eurasian_watermilfoil"), Testing.plant("northern_watermilfoil"))

      assert_equal %w[leaflet_pairs out_of_water], duel.rows.first(2).select(&:deciding).map { |row| row.character.key }
      assert(duel.rows.none? { |row| row.left == row.right })
    end

    # Any two plants can be laid side by side, and something is said of them.
    def test_every_pair_has_a_duel
      random = Random.new(6)
      plants = Core::Knowledge.shipped.plants.values
      150.times do
        left, right = plants.sample(2, random:)
        rows = Core::Identify::Duel.new(left, right).rows

        assert_operator rows.size, :>=, 3, "#{left.key} and #{right.key}"
        assert_equal rows.map(&:apart), rows.map(&:apart).sort.reverse if rows.none?(&:deciding)
      end
    end

    def test_unknown_keys_are_refused
      assert_raises(Core::BadInput) { key("nose" => "long") }
      assert_raises(Core::BadInput) { key("pith" => "blue") }
    end
  end
end
