# frozen_string_literal: true

require "test_helper"

module Thistle
  class IdentifyTest < Minitest::Test
    Key = Core::Identify::Key

    def key(seen = nil, date: Testing::TODAY, **looks) = Key.new(seen || looks, site: Testing.site, date:)

    # Bayes by hand for one answer: each weight is (1 - e) x share + e / states, then all are scaled to 1.
    def test_one_answer_by_hand
      states = 3
      hollow = (0.96 * 0.96 / (0.96 + (2 * 0.005))) + (0.04 / states)
      white_usually_brown_sometimes = (0.96 * 0.005 / (0.75 + 0.3 + 0.005)) + (0.04 / states)
      weights = key("pith" => "hollow").weights

      assert_in_delta hollow / white_usually_brown_sometimes,
                      weights[Testing.plant("amur_honeysuckle")] / weights[Testing.plant("coralberry")], 1e-9
      assert_in_delta 1.0, weights.values.sum, 1e-12
    end

    def test_the_order_of_looks_does_not_matter
      seen = { "habit" => "shrub", "pith" => "hollow", "leaf_margin" => "smooth" }

      assert_equal key(seen).candidates.map(&:plant), key(seen.to_a.reverse.to_h).candidates.map(&:plant)
    end

    def test_a_mistake_is_forgiven
      seen = { "habit" => "herb", "smell" => "garlic", "leaf_type" => "simple", "petals" => "four", "flower_colour" => "white",
               "leaf_shape" => "narrow" }

      assert_equal "garlic_mustard", key(seen).top.plant.key
    end

    # Every invader, described as its file says, comes out first and settles; every native never settles as an invader.
    def test_every_plant_is_found_from_its_own_description
      Core::Knowledge.shipped.plants.each_value do |plant|
        seen = plant.characters.transform_values { |states| states.max_by { |_, often| Key::SHARES[often] }.first }
        asked = key(seen)

        assert_equal plant.key, asked.top.plant.key
        assert_predicate asked.settlement, :settled?, "#{plant.key}: #{asked.settlement.reasons}" if plant.invasive?
      end
    end

    def test_not_settled_without_the_deciding_character
      seen = { "habit" => "shrub", "leaf_arrangement" => "opposite", "leaf_margin" => "smooth", "leaf_shape" => "pointed" }
      settlement = key(seen).settlement

      refute_predicate settlement, :settled?
      assert_match(/Cut twig.*has not been looked at/, settlement.reasons.join(" "))
      assert_includes settlement.photographs, "cut twig"
      assert_predicate key(seen.merge("pith" => "hollow")).settlement, :settled?
    end

    def test_a_contradiction_keeps_it_open
      seen = { "habit" => "shrub", "leaf_arrangement" => "opposite", "leaf_margin" => "toothed", "leaf_shape" => "pointed", "pith" => "hollow",
               "flower_colour" => "white" }

      assert_match(/speaks against/, key(seen).settlement.reasons.join)
    end

    def test_the_next_look_saves_doubt_and_says_what_each_answer_means
      asked = key("habit" => "shrub", "leaf_arrangement" => "opposite")
      look = asked.next_look
      expected = look.outcomes.sum { |o| o.chance * asked.plus(look.character.key, o.state).doubt }

      assert_operator look.gain, :>, 0.3
      assert_operator asked.doubt - expected, :>=, look.gain - 0.35
      assert_in_delta asked.plus(look.character.key, look.outcomes.first.state).top.probability, look.outcomes.first.probability, 1e-12
    end

    def test_winter_asks_for_no_flowers
      winter = key({ "habit" => "shrub" }, date: Date.new(2026, 1, 15)).askable.map(&:key)

      refute_includes winter, "flower_colour"
      assert_includes winter, "pith"
    end

    # A hazardous plant is likely: nothing that means crushing or cutting is suggested.
    def test_nobody_is_asked_to_crush_a_plant_that_may_harm
      asked = key("habit" => "tree")

      assert_predicate asked, :hazard_likely?
      assert_nil asked.next_look&.character&.touch
    end

    def test_duel_puts_what_decides_first
      duel = Core::Identify::Duel.new(Testing.plant("eurasian_watermilfoil"), Testing.plant("northern_watermilfoil"))

      assert_equal %w[out_of_water leaflet_pairs], duel.rows.select(&:deciding).map { |row| row.character.key }
      assert(duel.rows.none? { |row| row.left == row.right })
    end

    def test_unknown_keys_are_refused
      assert_raises(Core::BadInput) { key("nose" => "long") }
      assert_raises(Core::BadInput) { key("pith" => "blue") }
    end
  end
end
