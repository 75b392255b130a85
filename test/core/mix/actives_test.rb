# frozen_string_literal: true

require "test_helper"

module Thistle
  # The table of actives, every row: molar masses, targets, densities, where each belongs, what each is for.
  class ActivesTest < Minitest::Test
    Mix = Core::Mix
    KNOWLEDGE = Core::Knowledge.shipped
    ACTIVES = KNOWLEDGE.actives
    # Standard atomic weights (IUPAC, abridged).
    WEIGHTS = { "C" => 12.011, "H" => 1.008, "N" => 14.007, "O" => 15.999, "P" => 30.974, "S" => 32.06,
                "Cl" => 35.45, "F" => 18.998, "K" => 39.098 }.freeze
    # Sum formulas of acid and of what is added in the salt or ester, recalled from reference books.
    FORMULAS = {
      "glyphosate_ipa" => %w[C3H8NO5P C3H9N], "glyphosate_k" => ["C3H8NO5P", "K", -1],
      "triclopyr_tea" => %w[C7H4Cl3NO3 C6H15N], "triclopyr_bee" => %w[C7H4Cl3NO3 C6H12O],
      "triclopyr_choline" => %w[C7H4Cl3NO3 C5H13NO], "imazapyr" => %w[C13H15N3O3 C3H9N],
      "imazamox" => %w[C15H19N3O4 NH3], "metsulfuron" => %w[C14H15N5O6S], "aminopyralid" => %w[C6H4Cl2N2O2 C9H21NO3],
      "clopyralid" => %w[C6H3Cl2NO2 C2H7NO], "picloram" => ["C6H3Cl3N2O2", "K", -1],
      "fluroxypyr" => %w[C7H5Cl2FN2O3 C8H16], "dichlorophenoxy_amine" => %w[C8H6Cl2O3 C2H7N],
      "fosamine" => %w[C3H8NO4P NH3], "fluazifop" => %w[C15H12F3NO4 C4H8], "clethodim" => %w[C17H26ClNO3S],
      "sethoxydim" => %w[C17H29NO3S]
    }.freeze

    def mass(formula)
      formula.scan(/([A-Z][a-z]?)(\d*)/).sum { |atom, n| WEIGHTS.fetch(atom) * (n.empty? ? 1 : n.to_i) }
    end

    # Every method with herbicide says where its product goes, as labels name their uses; no other does.
    def test_methods_say_where_a_product_goes
      methods = Core::Knowledge.shipped.methods_of_removal.values
      told = methods.group_by(&:use).transform_values { |some| some.map(&:key) }

      assert_equal %w[basal cut_stump foliar hack], told.keys.compact.sort
      assert_equal [%w[basal_bark], %w[cut_stump], %w[hack_and_squirt]], told.values_at("basal", "cut_stump", "hack")
      assert_empty told[nil].select { |key| Core::Knowledge.shipped.removal(key).herbicide? }
      assert(told.fetch("foliar").all? { |key| Core::Knowledge.shipped.removal(key).herbicide == :foliar })
    end

    def test_molar_masses_are_sums_of_atomic_weights
      FORMULAS.each do |key, (acid, added, hydrogen)|
        active = ACTIVES.fetch(key)
        salt = mass(acid) + (added ? mass(added) : 0) + ((hydrogen || 0) * WEIGHTS["H"])

        assert_in_delta mass(acid), active.acid_molar_mass, 0.1, key
        assert_in_delta salt, active.salt_molar_mass, 0.15, key
      end
    end

    # Each target lies in the grams of acid on a litre that a second reading of labels gave (corrections/values.md 7.2,
    # recalled), and what is planned can be so.
    def test_targets_and_densities
      ACTIVES.each_value do |active|
        product = Mix::Product.planned(active)

        assert_empty product.complaints, active.key
        active.uses.each do |use, told|
          share = [told["target"] / product.main.percent, 1.0].min
          grams = Mix::Strength.new(share, product).acid_grams

          assert_includes (told["acid_g_l"].first * 0.985)..(told["acid_g_l"].last * 1.015), grams,
                          "#{active.key} #{use}"
        end
      end
    end

    # CHECKS.md: 44.4 % is 3 lb acid a gallon, 61.6 % four, 41 % three; typed as if it were active, it is asked about.
    def test_acid_typed_as_active_is_a_question
      { "triclopyr_tea" => [44.4, 3], "triclopyr_bee" => [61.6, 4], "glyphosate_ipa" => [41, 3] }
        .each do |key, (percent, pounds)|
        grams = Mix::Quantity.of(pounds, "lb/gal").to("g/L")
        asked, told = %i[grams_per_litre acid_per_litre].map do |as|
          one = Mix::Ingredient.printed(active: ACTIVES[key], percent: percent.to_f, as => grams)
          Mix::Product.new(name: key, ingredients: [one], form: ACTIVES[key].form)
        end

        assert_match(/Does the label print acid/, asked.complaints[:grams], key)
        assert_empty told.complaints, key
        assert_in_delta grams, told.main.acid_per_litre, 1e-9
        assert_in_delta ACTIVES[key].acid_g, grams, grams * 0.015, key
      end
    end

    # Nothing that is carried in water is offered for bark, no ester in oil for leaves.
    def test_what_belongs_where
      ACTIVES.each_value do |active|
        carriers = active.uses.transform_values { |told| told["carrier"] }

        refute_equal "water", carriers["basal"], active.key
        refute_equal "bark oil", carriers["foliar"], active.key
        Mix::Product::USES.each_key do |use|
          refusal = Mix::Product.planned(active).on(use).refusal

          assert_equal active.uses.key?(use), refusal.nil?, "#{active.key} #{use}: #{refusal}"
        end
      end
    end

    # Every invader by every herbicide method that suits it: grass killers on grasses alone, what leaves grasses
    # standing never on them, in water nothing without a label for it; a known one where bulletins name one.
    def test_what_suits_which_plant
      unknown = cells.filter_map do |plant, use|
        by = Mix::Choice.new(plant, use).by_verdict
        check_kinds(plant, by)
        "#{plant.key} #{use}" unless by[:known]
      end

      assert_operator unknown.size, :<=, 46, unknown.join(", ")
      assert_equal %w[glyphosate_ipa glyphosate_ipa_aquatic glyphosate_k imazapyr imazamox],
                   known("common_reed", "foliar")
      assert_equal %w[glyphosate_ipa_aquatic imazapyr imazamox], known("common_reed", "foliar", wet: true)
      assert_includes known("johnson_grass", "foliar"), "fluazifop"
      assert_includes known("amur_honeysuckle", "basal"), "triclopyr_bee"
      assert_equal [:never, "it leaves grasses standing"], verdict("common_reed", "foliar", "triclopyr_tea")
      assert_equal [:never, "it kills grasses alone"], verdict("garlic_mustard", "foliar", "clethodim")
      assert_equal [:weak, "it only holds it"], verdict("leafy_spurge", "foliar", "glyphosate_ipa")
    end

    private

    def cells
      herbicides = KNOWLEDGE.methods_of_removal.values.select(&:herbicide?)
      KNOWLEDGE.invaders.flat_map do |plant|
        methods = herbicides.select { |one| one.told?(plant) || one.suits?(plant) }
        methods.map { |one| [plant, one.use] }.uniq
      end
    end

    def check_kinds(plant, by)
      usable = by.except(:never).values.flatten.map(&:active)
      if plant.family == "Poaceae"
        assert_empty usable.reject { |one| one.kills.include?("grass") }, plant.key
      else
        assert_empty usable.select { |one| one.kills == ["grass"] }, plant.key
      end
      assert_empty usable.reject(&:aquatic), plant.key if plant.aquatic?
    end

    def known(plant, use, **more)
      Mix::Choice.new(KNOWLEDGE.plant(plant), use, **more).by_verdict[:known].map { |one| one.active.key }
    end

    def verdict(plant, use, active)
      found = Mix::Choice.new(KNOWLEDGE.plant(plant), use).weighed.find { |one| one.active.key == active }
      [found.verdict, found.why]
    end
  end
end
