# frozen_string_literal: true

require "test_helper"

module Thistle
  class KnowledgeTest < Minitest::Test
    def with_copy
      Dir.mktmpdir do |dir|
        FileUtils.cp_r("#{Core::Knowledge::FOLDER}/.", dir)
        yield dir
      end
    end

    def fault(path, from, to)
      with_copy do |dir|
        file = File.join(dir, path)
        text = File.read(file)

        assert_includes text, from
        File.write(file, text.sub(from, to))
        assert_raises(Core::Knowledge::Fault) { Core::Knowledge.new(folder: dir) }.message
      end
    end

    def test_the_library_is_sound_and_frozen
      library = Core::Knowledge.shipped

      assert_operator library.invaders.size, :>=, 158
      assert_operator library.natives.size, :>=, 60
      assert_predicate library.plants, :frozen?
      assert_equal %w[aquatic fern grass herb mat shrub tree vine], library.invaders.map { |p| p.form.to_s }.uniq.sort
    end

    def test_a_fault_names_file_and_field
      assert_match %r{knowledge/plants/caltrop\.yml: seed/bank_years.*}, fault("plants/caltrop.yml", "low: 3,", "")
      assert_match %r{knowledge/plants/caltrop\.yml: characters: nose is not known},
                   fault("plants/caltrop.yml", "  habit:", "  nose:")
      assert_match %r{knowledge/plants/caltrop\.yml: source: rumour is not known},
                   fault("plants/caltrop.yml", "source: memory", "source: rumour")
      assert_match %r{look_alikes/by: leaf_type hardly separates it from Warty caltrop},
                   fault("plants/caltrop.yml", "by: [fruit, flower_width]", "by: [leaf_type]")
      assert_match %r{characters/fruit: nobody could see it},
                   fault("natives/spicebush.yml", "phase: ripe_seed", "phase: leaf")
      assert_match %r{characters/height: low is above high}, fault("natives/spicebush.yml", "low: 150", "low: 950")
      assert_match %r{knowledge/methods/girdle\.yml: line \d+: not YAML},
                   fault("methods/girdle.yml", "tags: [girdling]", "tags: [girdling")
      assert_match %r{knowledge/methods/girdle\.yml: effort}, fault("methods/girdle.yml", "per: stem", "per: day")
    end

    # DESIGN.md section 3: core loads and works alone.
    def test_core_stands_alone
      script = <<~RUBY
        require "./thistle"
        Thistle::LOADER.eager_load_dir("core")
        Thistle::Core::Knowledge.shipped
        abort "core reaches up" if defined?(Sinatra) || defined?(Sequel) || defined?(ERB) || defined?(Rack)
        puts "alone"
      RUBY
      assert_equal "alone\n", IO.popen([RbConfig.ruby, "-e", script], chdir: ROOT, &:read)
      sources = Dir["#{ROOT}/core/**/*.rb"].map { |path| File.read(path) }.join

      refute_match(/Date\.today|Time\.now/, sources, "today is always passed in")
    end
  end
end
