# frozen_string_literal: true

require "yaml"
require "test_helper"

module Thistle
  # Jars, tanks and a season for two people, against a table that was worked by hand (test/fixtures/mixes.yml).
  class HandWorkedTest < Minitest::Test
    TABLE = YAML.safe_load_file(File.join(__dir__, "../fixtures/mixes.yml"), permitted_classes: [Date],
                                                                             symbolize_names: true)

    Mix = Core::Mix

    # Each way of writing a strength: product, acid, and the same strength read back from every other way.
    def test_every_mix
      TABLE[:mixes].each do |row|
        mix = blended(row)
        dose = mix.doses.first

        assert_close row[:product], mix.products.sum { |part| part.ml || part.grams }, row
        assert_close row[:acid], mix.acid_g.values.sum, row
        assert_in_delta row[:of], mix.parts.filter_map(&:ml).sum, 1e-6, row
        assert_comes_back dose.strength, row
      end
    end

    def test_a_season_for_two
      Testing.demo(fresh: true)
      season = TABLE[:season]
      can = shelved(season)
      grounds = { "A" => boxed("Q-80", 0), "B" => boxed("Q-81", 50) }
      season[:days].each do |day|
        work = record(grounds.fetch(day[:where]), can, day)
        most = grounds.transform_values { |patch| Store::Applications.new(patch, 2026).most("glyphosate") }

        assert_in_delta day[:left], can.on_hand_ml, 0.01, day
        assert_in_delta day[:on_a], most["A"], 0.4, day
        assert_in_delta day[:on_b], most["B"], 0.4, day
        assert_equal day[:may], work.past_label.empty?, day
      end
      assert_equal %w[Ines Ramon], Store::HerbicideRecords.new(grounds["A"].property).people & %w[Ines Ramon]
    end

    private

    def labelled(key)
      told = TABLE[:labels].fetch(key.to_sym)
      printed = told.slice(*Mix::Ingredient::PRINTED).transform_values(&:to_f)
      one = Mix::Ingredient.printed(active: Core::Knowledge.shipped.actives.fetch(told[:active]), **printed)
      Mix::Product.new(name: "as labelled", ingredients: [one], **told.slice(:form, :density))
    end

    def blended(row)
      product, (number, way) = labelled(row[:label]), row[:typed]
      strength = Mix::Strength.read(number.to_f, way, product, spray: row[:spray]&.to_f,
                                                               carrier: product.on(row[:use]).carrier)
      Mix::Blend.new(doses: [Mix::Blend::Dose.new(product:, strength:)], total_ml: row[:of], use: row[:use]).mixture
    end

    # One part in ten thousand, for figures that are rounded in the table.
    def assert_close(expected, found, row) = assert_in_delta(expected, found, [expected * 1e-4, 6e-4].max, row)

    # Said in any way, it is read back as the same.
    def assert_comes_back(strength, row)
      Mix::Way::ALL.each_value do |way|
        said = strength.in(way.key) or next
        again = Mix::Strength.read(said, way.key, strength.product, spray: row[:spray]&.to_f,
                                                                   carrier: strength.product.on(row[:use]).carrier)

        assert_in_delta strength.share, again.share, 1e-9, "#{row[:what]}, #{way.label}"
        refute_empty Mix::Conversion.new(strength, way).formula
      end
    end

    def shelved(season)
      actives = [{ active: "glyphosate_ipa", percent: 41.0, grams_per_litre: season[:grams].to_f,
                   most_g_per_ha: season[:most_g_per_ha].to_f }]
      Store::Product.create(name: "Can for two", actives: JSON.generate(actives), counted_ml: season[:can_ml],
                            counted_at: Time.now.utc - 60)
    end

    # A hectare, so many metres east of a corner.
    def boxed(code, east)
      lon, lat = ->(x) { -91.4 + (x / 87_795.0) }, ->(y) { 38.0 + (y / 110_997.0) }
      ring = [[east, 0], [east + 100, 0], [east + 100, 100], [east, 100], [east, 0]].map { |x, y| [lon[x], lat[y]] }
      shape = Core::Survey::Shape.new("type" => "Polygon", "coordinates" => [ring])
      Store::Patch.new(property_id: Store::Property.first(prefix: "Q").id, code:, plant_key: "amur_honeysuckle",
                       state: "surveyed", seen_on: Date.new(2026, 1, 1)).tap { |patch| patch.shape = shape }.save
    end

    def record(patch, can, day)
      Store::Treatment.record(patch, patch.property.site(Store::Setting.today),
                              done_on: day[:day], method_key: "cut_stump", crew_size: 2, hours: 4.0, stems_done: 80,
                              active_key: "glyphosate_ipa", product_id: can.id, product_ml: day[:ml].to_f,
                              mix_ml: 2.0 * day[:ml], applicator: day[:who])
    end
  end
end
