# frozen_string_literal: true

require "test_helper"

module Thistle
  # Units and dimensions, needs by geometry, calibration and water.
  class QuantityTest < Minitest::Test
    Mix = Core::Mix
    Quantity = Mix::Quantity

    # Every unit to every other of its kind and back, by any path.
    def test_every_path_of_units
      Quantity::UNITS.group_by { |_, (_, powers)| powers }.each_value do |units|
        names = units.map(&:first)
        names.product(names, names).each do |a, b, c|
          straight = Quantity.of(3.7, a).to(c)
          round = Quantity.of(Quantity.of(3.7, a).to(b), b).to(c)

          assert_in_delta 1, round / straight, 1e-12, "#{a} #{b} #{c}"
        end
      end
      # defined exactly: a gallon is 231 cubic inches, an acre 43 560 square feet, a pound 453.592 37 g
      assert_in_delta 231 * (2.54**3), Quantity.of(1, "gal").to("mL"), 1e-9
      assert_in_delta 43_560, Quantity.of(1, "ac").to("ft²"), 1e-6
      assert_in_delta 16, Quantity.of(1, "lb").to("oz"), 1e-12
      assert_in_delta 119.8264, Quantity.of(1, "lb/gal").to("g/L"), 1e-4
    end

    def test_what_does_not_belong_together_is_never_added
      volume, mass = Quantity.of(1, "L"), Quantity.of(1, "kg")

      [-> { volume + mass }, -> { volume.to("g") }, -> { Quantity.of(1, "firkin") }].each do |wrong|
        assert_equal :unit, assert_raises(Core::BadInput, &wrong).field
      end
      assert_nil volume <=> mass
      assert_operator volume, :<, Quantity.of(2, "qt")
      assert_in_delta 1.5, (volume + Quantity.of(500, "mL")).to("L")
      assert_in_delta 1.169, (mass * 1.169 / volume).to("kg/L")
      assert_in_delta 40, (Quantity.of(10, "L/ha") * Quantity.of(4, "ha")).to("L")
    end

    # By hand: a quart is 946.35 mL, a bare number counts in the field's unit; a mass is no volume.
    def test_amounts_with_their_unit
      read = ->(text) { Mix::Typed.volume(text, unit: "fl oz", field: :dose) }

      { "2 qt" => 1892.706, "1.5 L" => 1500, "1,5 l" => 1500, "500 ml" => 500, "3" => 88.7206, "1 gal" => 3785.412,
        "2 fl oz" => 59.147, "1 000 mL" => 1000 }.each { |text, ml| assert_in_delta ml, read[text], 0.001, text }
      ["", "much", "mL"].each { |text| assert_nil read[text], text }
      error = assert_raises(Core::BadInput) { read["3 lb"] }

      assert_equal :dose, error.field
      assert_match(/“lb”, which is no volume/, error.message)
    end

    # Ring, band and cuts against sums over thin slices; by hand: a trunk of 8 cm takes three cuts.
    def test_needs_by_geometry
      slices = 20_000
      [1.0, 2.5, 8.0, 30.0].each do |diameter|
        radius = diameter / 2
        ring = (0...slices).sum do |n|
          at = radius * (n + 0.5) / slices
          at < radius - 1 ? 0 : 2 * Math::PI * at * radius / slices
        end

        assert_in_delta ring * 0.13, Mix::Need.ring(diameter), ring * 1e-3
        band = (0...slices).sum { 2 * Math::PI * radius * 40.0 / slices }

        assert_in_delta band * 0.027, Mix::Need.band(diameter), 1e-6
      end
      assert_in_delta 3, Mix::Need.cuts(8.0)
      assert_in_delta 1, Mix::Need.cuts(1.0)
      assert_equal :diameter, assert_raises(Core::BadInput) { Mix::Need.ring(0.0) }.field
    end

    # CHECKS.md: 0.4 GPM, 5 mph, 20 in → 23.76 GPA, metric the same; 340.3 ft², whose fluid ounces are gallons an acre.
    def test_calibration
      litres = Mix::Calibration.nozzle(ml: Quantity.of(0.4, "gal").to("mL"), seconds: 60,
                                       km_h: 5 * 1.609344, spacing_m: 20 * 0.0254)

      assert_in_delta 23.76, litres / Quantity.of(1, "gal/ac").to("L/ha"), 0.005
      assert_in_delta 5940 * 0.4 / (5 * 20), litres / Quantity.of(1, "gal/ac").to("L/ha"), 1e-9
      metric = 60_000 * Quantity.of(0.4, "gal").to("L") / (5 * 1.609344 * 20 * 2.54)

      assert_in_delta metric, litres, 1e-9
      assert_in_delta 340.3, Mix::Calibration::PLOT_M2 / Quantity.of(1, "ft²").to("m²"), 0.05
      assert_in_delta 18.45, Math.sqrt(Mix::Calibration::PLOT_M2 / Quantity.of(1, "ft²").to("m²")), 0.005
      assert_in_delta 30, Mix::Calibration.plot(ml: Quantity.of(30, "fl oz").to("mL")) /
                          Quantity.of(1, "gal/ac").to("L/ha"), 1e-9
      assert_in_delta 4.5, Mix::Calibration.pace(25, [20.0, 19.0, 31.0])
      assert_equal %i[good worn blocked], [1.05, 1.2, 0.8].map { |flow| Mix::Calibration.wear(flow, 1.0).last }
      { ml: { ml: 0, seconds: 1, km_h: 1, spacing_m: 1 }, pace: { ml: 1, seconds: 1, km_h: 80, spacing_m: 1 } }
        .each { |f, g| assert_equal f, assert_raises(Core::BadInput) { Mix::Calibration.nozzle(**g) }.field }
    end

    # CHECKS.md: Ca 100, Mg 30, Na 20, K 5 → 1.43 lb on 100 gallons.
    def test_hard_water
      grams = Mix::Carrier.ammonium_sulfate(calcium: 100.0, magnesium: 30.0, sodium: 20.0, potassium: 5.0)

      assert_in_delta 1.43, grams / Quantity.of(1, "lb/gal").to("g/L") * 100, 1e-9
      assert_in_delta 0.009 * 100, Mix::Carrier.for_hardness(249.73) / Quantity.of(1, "lb/gal").to("g/L") * 100, 1e-3
      assert_equal :hardness, assert_raises(Core::BadInput) { Mix::Carrier.for_hardness(-1) }.field
    end
  end
end
