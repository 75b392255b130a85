# frozen_string_literal: true

require "test_helper"

module Thistle
  # Where natives are at home, and where a property lies: known places of known boundaries, and plants that floras put
  # elsewhere (recalled).
  class HomeTest < Minitest::Test
    NATIVES = Core::Knowledge.shipped.palette
    PLACES = { columbia: [-92.3, 38.95, "na_midwest", "frost"], seattle: [-122.3, 47.6, "na_northwest", "mild"],
               miami: [-80.3, 25.6, "na_gulf", "wet_dry"], mojave: [-115.5, 35.2, "na_desert", "desert"],
               coast: [-122.98, 38.05, "na_west", "winter_wet"], duluth: [-92.1, 46.8, "na_midwest", "frost"],
               sydney: [151.2, -33.87, "australia", "mild"], hobart: [147.3, -42.9, "australia", "mild"],
               cumbria: [-3.1, 54.5, "british_isles", "frost"], toronto: [-79.4, 43.7, "canada_east", "frost"] }.freeze
    FOUND = { columbia: ["United States of America", "MO"], seattle: ["United States of America", "WA"],
              miami: ["United States of America", "FL"], mojave: ["United States of America", "CA"],
              coast: ["United States of America", "CA"], duluth: ["United States of America", "MN"],
              sydney: %w[Australia NSW], hobart: %w[Australia TAS], cumbria: ["United Kingdom", nil],
              toronto: %w[Canada ON] }.freeze
    # native => [at home, not at home]; the faults of before among them
    KNOWN = { "desert_globemallow" => [%i[mojave], %i[seattle coast columbia]],
              "western_soapberry" => [%i[columbia], %i[duluth seattle]],
              "sugar_maple" => [%i[columbia duluth toronto], %i[miami mojave]],
              "black_cherry" => [%i[columbia toronto miami], %i[mojave coast cumbria]],
              "salal" => [%i[seattle coast], %i[columbia mojave]], "toyon" => [%i[coast], %i[seattle mojave]],
              "little_bluestem" => [%i[columbia miami duluth], %i[sydney cumbria]],
              "hawthorn" => [%i[cumbria], %i[seattle columbia]],
              "silver_banksia" => [%i[hobart sydney], %i[cumbria]],
              "screw_palm" => [[], %i[sydney hobart]], "brittlebush" => [%i[mojave], %i[coast]] }.freeze

    def borders = @@borders ||= Web::Boot.borders # rubocop:disable Style/ClassVars

    def place(key)
      longitude, latitude, region, climate = PLACES.fetch(key)
      Core::Replant::Native::Place.new(region:, latitude:, longitude:, climate:, **borders.at(longitude, latitude).to_h)
    end

    def test_places_are_found_by_the_boundaries
      FOUND.each { |key, found| assert_equal found, place(key).to_h.values_at(:country, :part), key }
      assert_equal [nil, nil], borders.at(-30.0, 0.0).to_h.values, "in the ocean"
    end

    def test_the_sea_is_in_sight_or_it_is_not
      { columbia: false, seattle: true, miami: true, mojave: false, coast: true, sydney: true, cumbria: true,
        toronto: false }.each do |key, sea|
        longitude, latitude, = PLACES.fetch(key)

        assert_equal sea, borders.by_sea?(longitude, latitude), key
      end
    end

    def test_natives_are_at_home_where_floras_have_them
      KNOWN.each do |key, (home, elsewhere)|
        native = NATIVES.fetch(key)
        home.each { |one| assert_equal :home, native.at(place(one)), "#{key} at #{one}" }
        elsewhere.each { |one| refute_equal :home, native.at(place(one)), "#{key} at #{one}" }
      end
    end

    # Every native has a home by name, its keys are known, and what it names lies in a region that it has.
    def test_every_home_is_told_by_name
      places = Core::Knowledge.shipped.places
      NATIVES.each_value do |native|
        parts = places.keys.to_h { |country| [country, native.at_home.parts(country)] }
        unknown = parts.flat_map { |country, some| some - places[country]["names"].keys }

        assert_empty unknown, native.key
        refute_empty parts.values.flatten + native.at_home.countries, native.key
      end
      american, overseas = NATIVES.values.partition { |one| one.home.any? { |region| region.start_with?("na_") } }

      assert_empty american.select { |one| one.at_home.parts("United States of America").empty? }.map(&:key)
      assert_empty overseas.reject { |one| one.at_home.parts("United States of America").empty? }.map(&:key)
    end

    # Where no boundaries know the place, the region decides; never more than before.
    def test_without_boundaries_the_region_decides
      nowhere = Core::Replant::Native::Place.new(region: "na_midwest")

      assert_equal :home, NATIVES["sugar_maple"].at(nowhere)
      assert_equal :nearby, NATIVES["western_soapberry"].at(place(:duluth)), "of the region, not of this state"
    end
  end
end
