# frozen_string_literal: true

require "yaml"
require "support/web"

module Thistle
  # The worked cases of test/fixtures/mixes.yml, asked as a person would: labels typed onto the shelf, then the bench.
  class WebMixTableTest < RackTest
    TABLE = YAML.safe_load_file(File.join(__dir__, "../fixtures/mixes.yml"), permitted_classes: [Date],
                                                                             symbolize_names: true)
    METHODS = { "cut_stump" => "cut_stump", "basal" => "basal_bark", "hack" => "hack_and_squirt",
                "foliar" => "foliar_spot" }.freeze
    FIELDS = { percent: :percent1, acid_percent: :acid_percent1, grams_per_litre: :grams1,
               acid_per_litre: :acid_grams1 }.freeze

    def metric = Store::Property.first(prefix: "Q").id
    def at(row) = row[:units] == "us" ? Store::Property.first(units: "us").id : metric

    def test_every_way_of_writing_a_strength
      shelf = TABLE[:labels].to_h { |key, label| [key, on_the_shelf(key, label)] }
      TABLE[:mixes].each do |row|
        found = asked("/mix.json", at: metric, product: shelf.fetch(row[:label].to_sym), **bench(row))
        answer = found["answer"]

        assert answer, "#{row[:what]}: #{found["errors"]}"
        poured = answer["parts"].find { |part| part["name"] == row[:label] }
        delta = [row[:product] * 2e-4, 0.006].max

        assert_in_delta row[:product], poured["ml"] || poured["grams"], delta, row[:what]
        assert_in_delta row[:acid], answer["acid_g"].values.first, [row[:acid] * 2e-4, 0.006].max, row[:what]
      end
    end

    def test_what_the_work_takes
      TABLE[:needs].each do |row|
        found = asked("/mix.json", at: metric, vessel: row[:vessel], method: row[:method], **row[:ask])

        assert_in_delta row[:ml], found["answer"]["total_ml"], 0.5, row[:what]
      end
    end

    def test_sprayers
      TABLE[:sprayers].each do |row|
        found = asked("/mix/calibration.json", at: at(row), **row[:ask])
        got = { litres_per_ha: found["litres_per_ha"], **(found["wanted"] || {}).transform_keys(&:to_sym) }
        want = row.slice(:litres_per_ha, :ml_min, :km_h)

        want.each { |name, figure| assert_in_delta figure, got[name], figure * 1e-3, row[:what] }
      end
    end

    def test_what_goes_in_besides
      TABLE[:besides].each do |row|
        found = asked("/mix.json", at: metric, vessel: "tank", area: 200, rate: 5, **row[:ask])
        part = found["answer"]["parts"].find { |one| one["name"] == row[:name] }

        assert_in_delta row[:ml] || row[:grams], part["ml"] || part["grams"], 0.02, row[:what]
      end
      oil = asked("/mix.json", at: metric, method: "basal_bark", product: "triclopyr_bee", ams: 17)

      assert_match(/there is none in bark oil/, oil["errors"]["ams"])
    end

    def test_loads
      TABLE[:loads].each do |row|
        answer = asked("/mix.json", at: metric, vessel: "tank", **row[:ask])["answer"]

        assert_equal [row[:loads], row[:last]], [answer["loads"], answer["last_load_ml"].round], row[:what]
      end
    end

    # What belongs where, for every active: what carries it, and what is refused with why.
    def test_every_active_on_every_use
      Core::Knowledge.shipped.actives.each_value do |active|
        METHODS.each do |use, method|
          vessel = use == "foliar" ? "tank" : "jar"
          found = asked("/mix.json", at: metric, vessel:, method:, product: active.key, stems: 10, dose: 1, area: 100)
          known = active.use(use)

          if known
            assert_equal known["carrier"], found["answer"]["carrier"], "#{active.key} on #{use}"
          else
            assert_match(/does not belong on/, found["errors"]["product"], "#{active.key} on #{use}")
          end
        end
      end
    end

    # Granules by weight: a label's rate in grams on a hectare, held against the tank, and a record that keeps grams.
    def test_what_is_weighed
      send_form(:post, "/mix/shelf", at: metric, name: "Granules", form: "granule", active1: "metsulfuron",
                                     percent1: "60", use_foliar: "true", rate_low_foliar: "40", rate_high_foliar: "80")
      granules = Store::Product.last
      bench = { at: metric, vessel: "tank", product: granules.id, area: 1000, rate: 4 }
      found = asked("/mix.json", **bench)

      assert_in_delta 4, found["answer"]["parts"].find { |part| part["name"] == "Granules" }["grams"], 0.01
      assert_empty found["objections"]
      found = asked("/mix.json", **bench, target: "100 g/ha")

      assert_match(%r{100 g/ha of product is outside the label.s 40 g/ha to 80 g/ha}, found["objections"].first["text"])
      send_form(:post, "/work/treatments", patch: patch("Q-05").id, method_key: "foliar_spot", done_on: "2026-05-12",
                                           crew_size: "1", hours: "1", product_id: granules.id, product: "12",
                                           mix: "4000", area: "1000", applicator: "M. Oakes")
      work = Store::Treatment.last

      assert_equal [nil, 12.0], [work.product_ml, work.product_g]
      assert_match(/120 g.ha of product is outside/, work.against_label.map { |text| Core::Units.new.fill(text) }.join)
      get "/mix/records?at=#{metric}"

      assert_said "Granules, 12 g"
    end

    # A strength with its unit behind it, as one says it; a unit that nobody knows.
    def test_a_unit_typed_behind_the_number
      { "2 qt/ac" => ["qt_ac", 2], "1.5 lb ae/acre" => ["lb_acid_ac", 1.5], "2 %" => ["product", 2],
        "10 ml/l" => ["ml_per_l", 10], "3 fl oz per gallon" => ["ounces", 3] }.each do |typed, (way, number)|
        found = asked("/mix.json", at: metric, vessel: "tank", product: "glyphosate_ipa", target: typed)

        assert_in_delta number, found["answer"]["strengths"].first[way], 1e-6, typed
      end
      found = asked("/mix.json", at: metric, product: "glyphosate_ipa", target: "2 furlongs")

      assert_match(/no unit known here/, found["errors"]["target"])
      found = asked("/mix.json", at: metric, product: "glyphosate_ipa", target: "2 qt/ac")

      assert_match(/needs the spray volume/, found["errors"]["target"])
    end

    private

    def asked(path, **params) = json("#{path}?#{URI.encode_www_form(params.compact)}")

    def on_the_shelf(key, label)
      printed = FIELDS.filter_map { |name, field| [field, label[name]] if label[name] }.to_h
      printed[:density] = label[:density] * 1000 if label[:density]
      send_form(:post, "/mix/shelf", at: metric, name: key.to_s, form: label[:form], active1: label[:active],
                                     **printed.transform_values(&:to_s))

      assert_equal 303, last_response.status, "#{key}: #{last_response.body[/bad-word[^<]*<?[^<]*/]}"
      Store::Product.last.id
    end

    def bench(row)
      number, way = row[:typed]
      told = { method: METHODS.fetch(row[:use]), target: number, said: way, container: "5000 L" }
      return { vessel: "jar", stems: 1, dose: "#{row[:of]} mL", **told } unless row[:use] == "foliar"

      rate = (row[:spray] || 500) / 100.0
      { vessel: "tank", rate:, area: row[:of] / 10.0 / rate, **told }
    end
  end
end
