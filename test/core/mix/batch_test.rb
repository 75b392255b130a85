# frozen_string_literal: true

require "test_helper"

module Thistle
  # Dilution, need and loads against CHECKS.md.
  class BatchTest < Minitest::Test
    OZ = Core::Units::ML_PER_FL_OZ
    ACTIVES = Core::Knowledge.shipped.actives

    def batch(**given) = Core::Mix::Batch.new(active: ACTIVES["glyphosate_ipa"], **given).mixture

    # CHECKS.md, Herbicide arithmetic: 41 % to 20 % is 48.78 % stock; a US gallon takes 62.44 and 65.56 fl oz.
    def test_dilution
      gallon = batch(target: 20.0, total_ml: 128 * OZ)

      assert_in_delta 0.4878, gallon.product_share, 5e-5
      assert_in_delta 62.44, gallon.stock_ml / OZ, 0.005
      assert_in_delta 65.56, gallon.carrier_ml / OZ, 0.005
      assert_in_delta 0.5, batch(target: 20.5, total_ml: 1000).product_share
      assert_in_delta 0.82, 0.02 * 41
      assert_in_delta 0.02, batch(target: 0.82, total_ml: 1000).product_share, 1e-12
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
      assert_in_delta 2.96, 4 * ACTIVES["glyphosate_ipa"].acid_share, 0.005
    end

    # By hand: 37.2 L in 15 L tanks is two full and one of 7.2 L.
    def test_loads
      answer = batch(target: 0.82, total_ml: 37_200, container_ml: 15_000)

      assert_equal 3, answer.loads
      assert_in_delta 7_200, answer.last_load_ml
      assert_in_delta 37_200 * 0.02, answer.stock_ml
      assert_equal 1, batch(target: 0.82, total_ml: 15_000, container_ml: 15_000).loads
    end

    def test_need
      assert_in_delta 85 * 3 * 1.1, Core::Mix::Need.jar(stems: 85, dose_ml: 3).total_ml
      assert_in_delta 5_500, Core::Mix::Need.tank(area_m2: 100, litres_per_100m2: 5).total_ml
    end

    def test_bad_mixes_are_refused_by_field
      { target: { target: 50.0, total_ml: 100 }, stock: { target: 1.0, stock: 0.0, total_ml: 100 },
        amount: { target: 1.0, total_ml: 0 },
        container: { target: 1.0, total_ml: 10, container_ml: -1 } }.each do |field, given|
        assert_equal field, assert_raises(Core::BadInput) { batch(**given) }.field
      end
      assert_match(/stronger than the stock/,
                   assert_raises(Core::BadInput) { batch(target: 50.0, total_ml: 1) }.message)
      assert_raises(Core::BadInput) { Core::Mix::Need.jar(stems: -4, dose_ml: 1) }
      assert_raises(Core::BadInput) { Core::Mix::Need.tank(area_m2: 1e12, litres_per_100m2: 1) }
    end

    # The mix adds up whatever is asked: stock and carrier make the total, full loads and the last make it too.
    def test_mixes_add_up
      random = Random.new(3)
      200.times do
        active = Core::Knowledge.shipped.actives.values.sample(random:)
        total_ml, container_ml = random.rand(1.0..90_000.0), random.rand(50.0..20_000.0)
        answer = Core::Mix::Batch.new(active:, target: random.rand(0.1..active.stock), total_ml:, container_ml:).mixture

        assert_in_delta answer.total_ml, answer.stock_ml + answer.carrier_ml, 1e-6
        assert_in_delta answer.total_ml, ((answer.loads - 1) * answer.load_ml) + answer.last_load_ml, 1e-6
        assert_operator answer.last_load_ml, :>, 0
        assert_in_delta answer.target, answer.stock_ml * active.stock / answer.total_ml, 1e-9
      end
    end
  end
end
