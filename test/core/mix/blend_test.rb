# frozen_string_literal: true

require "test_helper"

module Thistle
  # Strengths, dilution and loads against CHECKS.md, Herbicide arithmetic.
  class BlendTest < Minitest::Test
    OZ = Core::Units::ML_PER_FL_OZ
    ACTIVES = Core::Knowledge.shipped.actives
    Mix = Core::Mix

    def planned(key = "glyphosate_ipa") = Mix::Product.planned(ACTIVES[key])

    # A concentrate of 41 % by weight and 4 lb on the gallon.
    def labelled(**more)
      grams = Mix::Quantity.of(4, "lb/gal").to("g/L")
      main = Mix::Ingredient.new(active: ACTIVES["glyphosate_ipa"], percent: 41.0, grams_per_litre: grams)
      Mix::Product.new(name: "Stump concentrate", ingredients: [main], form: "solution", **more)
    end

    def dose(product, number, kind = "active")
      Mix::Blend::Dose.new(product:, strength: Mix::Strength.read(number, kind, product))
    end

    def blend(number, kind = "active", product: planned, **more)
      Mix::Blend.new(doses: [dose(product, number, kind)], **more).mixture
    end

    # 41 % to 20 % is 48.78 % stock; a US gallon takes 62.44 and 65.56 fl oz; 50 % of a 41 % stock is 20.5 % active.
    def test_dilution
      gallon = blend(20.0, total_ml: 128 * OZ)

      assert_in_delta 0.4878, gallon.product_ml / gallon.total_ml, 5e-5
      assert_in_delta 62.44, gallon.product_ml / OZ, 0.005
      assert_in_delta 65.56, gallon.carrier_ml / OZ, 0.005
      assert_in_delta 62.44, gallon.doses.first.strength.in("ounces"), 0.005
      assert_in_delta 20.5, Mix::Strength.read(50.0, "product", planned).active
      assert_in_delta 0.82, Mix::Strength.read(2.0, "product", planned).active
    end

    # 41 % by weight and 4 lb on the gallon are one concentrate only at 1.169 kg/L; 4 lb of active are 2.96 of acid.
    def test_weight_and_volume
      assert_in_delta 1.169, labelled.density, 5e-4
      assert_in_delta 479.3, labelled.main.grams_per_litre, 0.05
      assert_in_delta 2.96, labelled.main.acid_per_litre / Mix::Quantity.of(1, "lb/gal").to("g/L"), 0.005
      unsaid = Mix::Product.planned(ACTIVES["glyphosate_ipa"], 50.1) # not as it is usually sold

      assert_nil unsaid.density
      assert_match(/active in g.L/, unsaid.asks_for)
      assert_equal [unsaid.asks_for], blend(20.0, product: unsaid, total_ml: 100).asks
      assert_nil blend(20.0, product: unsaid, total_ml: 100).acid_g["glyphosate_ipa"]
      litre = blend(50.0, "product", product: labelled, total_ml: 1000)

      assert_in_delta 0.5 * 479.3 * 0.741, litre.acid_g["glyphosate_ipa"], 0.05
      halves = Array.new(2) { dose(labelled, 25.0, "product") } # two products of one active: their acid adds up

      assert_in_delta litre.acid_g["glyphosate_ipa"],
                      Mix::Blend.new(doses: halves, total_ml: 1000).mixture.acid_g["glyphosate_ipa"], 1e-9
      error = assert_raises(Core::BadInput) { Mix::Strength.read(100.0, "grams", unsaid) }
      assert_match(/type its g.L/, error.message)
    end

    # Typed any way, a strength says the same.
    def test_each_way_of_saying_a_strength_leads_to_every_other
      random = Random.new(2)
      100.times do
        one = Mix::Strength.new(random.rand(0.001..1.0), labelled, spray: 300.0)
        one.to_h.compact.each_key do |kind|
          again = Mix::Strength.read(one.in(kind.to_s), kind.to_s, labelled, spray: 300.0)

          assert_in_delta one.share, again.share, 1e-12, kind
        end
        assert_operator one.active, :<=, 41.0
        assert_operator one.acid, :<, one.active
      end
    end

    # CHECKS.md: acid equivalents from molar masses, which are sums of standard atomic weights.
    def test_acid_equivalents
      shares = { "glyphosate_ipa" => 0.7410, "triclopyr_tea" => 0.7171, "triclopyr_bee" => 0.7191 }

      shares.each { |key, share| assert_in_delta share, ACTIVES[key].acid_share, 1e-4 }
      carbon, hydrogen, nitrogen, oxygen, phosphorus = 12.011, 1.008, 14.007, 15.999, 30.974
      glyphosate = (3 * carbon) + (8 * hydrogen) + nitrogen + (5 * oxygen) + phosphorus
      isopropylamine = (3 * carbon) + (9 * hydrogen) + nitrogen

      assert_in_delta glyphosate, ACTIVES["glyphosate_ipa"].acid_molar_mass, 0.01
      assert_in_delta glyphosate + isopropylamine, ACTIVES["glyphosate_ipa"].salt_molar_mass, 0.02
    end

    # By hand: 37.2 L in 15 L tanks is two full and one of 7.2 L.
    def test_loads
      answer = blend(0.82, total_ml: 37_200, container_ml: 15_000)

      assert_equal 3, answer.loads
      assert_in_delta 7_200, answer.last_load_ml
      assert_in_delta 37_200 * 0.02, answer.product_ml
      assert_equal 1, blend(0.82, total_ml: 15_000, container_ml: 15_000).loads
    end

    # By hand: 10 L with 2 % of one, 1 % of another, 0.5 % adjuvant, 1 g of dye on the litre.
    def test_two_products_in_their_order
      granules = Mix::Product.planned(ACTIVES["metsulfuron"])
      extras = [Mix::Blend::Extra.new(name: "adjuvant", percent: 0.5, order: Mix::Blend::ADJUVANT),
                Mix::Blend::Extra.new(name: "dye", grams_per_litre: 1.0, order: Mix::Blend::DYE)]
      answer = Mix::Blend.new(doses: [dose(labelled, 2.0, "product"), dose(granules, 20.0, "g100l")], extras:,
                              total_ml: 10_000).mixture

      assert_equal ["water, to half", "Metsulfuron-methyl", "Stump concentrate", "adjuvant", "dye",
                    "water, to the mark"], answer.parts.map(&:name)
      assert_equal [4875, nil, 200, 50, nil, 4875], answer.parts.map { |part| part.ml&.round }
      assert_equal [2.0, 10.0], answer.parts.filter_map { |part| part.grams&.round(6) }
      assert_in_delta 10_000, answer.parts.filter_map(&:ml).sum
      oil = Mix::Product.planned(ACTIVES["triclopyr_bee"])
      error = assert_raises(Core::BadInput) do
        Mix::Blend.new(doses: [dose(labelled, 2.0, "product"), dose(oil, 2.0, "product")], total_ml: 1000,
                       use: "cut_stump")
      end
      assert_equal :second, error.field
    end

    def test_bad_mixes_are_refused_by_field
      { target: [50.0, { total_ml: 100 }], amount: [1.0, { total_ml: 0 }],
        container: [1.0, { total_ml: 10, container_ml: -1 }] }.each do |field, (number, more)|
        assert_equal field, assert_raises(Core::BadInput) { blend(number, **more) }.field
      end
      assert_match(/stronger than the product/,
                   assert_raises(Core::BadInput) { blend(50.0, total_ml: 1) }.message)
      assert_match(/did you mean mL/i, assert_raises(Core::BadInput) { blend(1.0, total_ml: 6e6) }.message)
      assert_raises(Core::BadInput) { Mix::Need.jar(stems: -4, dose_ml: 1) }
      assert_raises(Core::BadInput) { Mix::Need.tank(area_m2: 1e12, litres_per_100m2: 1) }
    end

    # The mix adds up whatever is asked; two half tanks are one; its strength lies between carrier and stock.
    def test_mixes_add_up
      random = Random.new(3)
      200.times do
        product = Mix::Product.planned(ACTIVES.values.reject { |one| one.form == "granule" }.sample(random:))
        total_ml, container_ml = random.rand(1.0..90_000.0), random.rand(50.0..20_000.0)
        target = random.rand(0.1..product.main.percent)
        answer = blend(target, product:, total_ml:, container_ml:)
        half = blend(target, product:, total_ml: total_ml / 2)

        assert_in_delta answer.total_ml, answer.parts.sum(&:ml), 1e-6
        assert_in_delta answer.total_ml, ((answer.loads - 1) * answer.load_ml) + answer.last_load_ml, 1e-6
        assert_operator answer.last_load_ml, :>, 0
        assert_in_delta target, answer.product_ml * product.main.percent / answer.total_ml, 1e-9
        assert_in_delta answer.product_ml, 2 * half.product_ml, 1e-6
        assert_in_delta answer.acid_g.values.first, 2 * half.acid_g.values.first, 1e-6
        assert_in_delta answer.total_ml * Mix::Need::SPARE, answer.to_bring.sum(&:ml), 1e-6, "brought, not mixed"
        assert answer.doses.first.strength.active.between?(0, product.main.percent)
      end
    end

    # By hand: a litre of 41 % down to 20 % wants 1050 mL; 250 mL and 250 mL are half; 100 mL at 2 % make 5 L.
    def test_from_the_other_end
      assert_in_delta 1050, Mix::Inverse.thin(1000, 41, 20)
      assert_in_delta 0.5, Mix::Inverse.share(250, 250)
      assert_in_delta 5000, Mix::Inverse.reach(100, 0.02)
      assert_equal :down_to, assert_raises(Core::BadInput) { Mix::Inverse.thin(1000, 20, 41) }.field
      assert_equal :poured, assert_raises(Core::BadInput) { Mix::Inverse.share(0, 250) }.field
    end
  end
end
