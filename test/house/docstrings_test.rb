# frozen_string_literal: true

require "test_helper"
require "yaml"

module Thistle
  # What core and formats offer to others says what it takes and gives: shapes, units, errors, source.
  class DocstringsTest < Minitest::Test
    # Public methods with a docstring, by room, as `rake docstrings` counted them: they may become more, never fewer.
    FLOOR = File.join(__dir__, "../fixtures/docstrings.yml")
    ENDLESS = /\A *def (self\.)?[^\s(]+(\(.*?\))? = /
    # file and line of its def; lines: from there to its end; doc: the comment above it, nil for none.
    Offered = Struct.new(:file, :line, :name, :lines, :doc) do
      def room = file[%r{\Acore/\w+(?=/)}] || file[/\A\w+/]
      def long? = !lines.first.match?(ENDLESS)
      def raises? = lines.any? { |text| text.match?(/\b(raise|refuse) /) }
      def to_s = "#{file}:#{line} #{name}"
    end

    def setup = LOADER.eager_load_namespace(Core).then { LOADER.eager_load_namespace(Formats) }

    def test_what_takes_more_than_a_line_says_what_it_gives
      assert_empty offered.select { |one| one.long? && one.doc.nil? }.map(&:to_s)
    end

    def test_what_raises_says_so
      silent = offered.select { |one| one.raises? && !one.doc.to_s.match?(/\braises?\b/i) }

      assert_empty silent.map(&:to_s)
    end

    def test_docstrings_become_more
      counts = offered.select(&:doc).map(&:room).tally
      File.write(FLOOR, YAML.dump(counts.sort.to_h)) if ENV["WRITE"]

      YAML.load_file(FLOOR).each do |room, least|
        assert_operator counts.fetch(room, 0), :>=, least, "public docstrings in #{room}"
      end
    end

    private

    # [Offered], the public methods that a file of core or formats defines by `def`.
    def offered
      @offered ||= namespaces(Core, Formats).flat_map { |space| methods_of(space) }.uniq { |one| [one.file, one.line] }
    end

    def namespaces(*from)
      from + from.flat_map do |space|
        inner = space.constants(false).map { |name| space.const_get(name, false) }
        namespaces(*inner.select { |one| one.is_a?(Module) && full(one).to_s.start_with?("#{full(space)}::") })
      end
    end

    # Reader has a `name` of its own.
    def full(space) = Module.instance_method(:name).bind_call(space)

    def methods_of(space)
      own = space.public_instance_methods(false).map { |name| space.instance_method(name) }
      own += space.singleton_class.public_instance_methods(false).map { |name| space.method(name) }
      own.filter_map { |method| read(method) }
    end

    def read(method)
      path, line = method.source_location
      return unless path&.start_with?("#{ROOT}/core", "#{ROOT}/formats")

      all = (@files ||= {})[path] ||= File.readlines(path)
      return unless all[line - 1].match?(/^\s*def /) && method.name != :initialize

      indent = all[line - 1][/\A */]
      length = all[line - 1].match?(ENDLESS) ? 1 : all[(line - 1)..].index { |text| text == "#{indent}end\n" } + 1
      above = all[0...(line - 1)].reverse.take_while { |text| text.match?(/^\s*#/) }.reverse
      doc = above.join if above.any?
      Offered.new(path.delete_prefix("#{ROOT}/"), line, method.name, all[line - 1, length], doc)
    end
  end
end
