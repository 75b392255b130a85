# frozen_string_literal: true

require "test_helper"

module Thistle
  # Texture by feel, by the steps of its published diagram (recalled), and whether water leaves the ground.
  class SoilPitTest < Minitest::Test
    Pit = Core::Season::SoilPit

    def test_every_way_through_the_questions_ends_in_one_texture_or_asks_on
      { %w[no] => "sand", %w[yes none] => "loamy_sand", %w[yes short gritty] => "sandy_loam",
        %w[yes short smooth] => "silt_loam", %w[yes short neither] => "loam", %w[yes middle gritty] => "clay_loam",
        %w[yes middle] => "clay_loam", %w[yes long smooth] => "clay", %w[yes short] => nil, %w[yes] => nil,
        %w[maybe] => nil, [] => nil, [nil, "long"] => nil }.each do |(ball, ribbon, feel), texture|
        found = Pit.new({ "ball" => ball, "ribbon" => ribbon, "feel" => feel }.compact).texture

        texture ? assert_equal(texture, found) : assert_nil(found, [ball, ribbon, feel].inspect)
      end
      known = Core::Knowledge.shipped.soils.keys

      assert_equal known.sort, [*Pit::BY_FEEL["short"].values, "sand", "loamy_sand", "clay_loam", "clay"].sort
    end

    # A sign that nobody looked for is a question, never a yes or a no.
    def test_one_sign_is_enough_and_none_needs_all_three
      assert_nil Pit.new({}).poorly_drained
      assert_nil Pit.new({ "water" => "no", "mottles" => "no" }).poorly_drained
      assert Pit.new({ "mottles" => "yes" }).poorly_drained
      refute Pit.new({ "water" => "no", "mottles" => "no", "smell" => "no" }).poorly_drained
    end

    def test_badly_drained_ground_stays_wet_longer
      fills = [false, true].map do |poorly_drained|
        soil = Core::Season::Soil.new(texture: "loam", latitude: 45.0, fill: 1.3, poorly_drained:)
        3.times do |n|
          soil.pass(Core::Season::Day.new(date: Date.new(2026, 4, 1) + n, tmin: 5.0, tmax: 12.0, rain: 0.0))
        end
        soil.fill
      end

      assert_operator fills.last, :>, fills.first + 0.05
    end
  end
end
