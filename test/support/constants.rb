# frozen_string_literal: true

module Thistle
  # The constants that a file of the house names, and the files that define them.
  class Constants
    # file, line: where it is named; name: in full; home: the file that defines it, from the root.
    Named = Struct.new(:file, :line, :name, :home)
    HOUSE = %w[core store formats stand_ins web demo].freeze
    NODE = RubyVM::AbstractSyntaxTree::Node

    def self.in(file) = new(file).named

    # ["core/units.rb:3 Unit"] that a file names and nothing defines.
    def self.missing(file) = new(file).tap(&:named).missing

    attr_reader :missing

    def initialize(file)
      @file, @missing = file, []
    end

    # [Named], those of the house.
    def named
      @named = []
      walk(RubyVM::AbstractSyntaxTree.parse_file(File.join(ROOT, @file)), [])
      @named
    end

    private

    def walk(node, nesting)
      return unless node.is_a?(NODE)

      case node.type
      when :MODULE, :CLASS then opened(node, nesting)
      when :CONST, :COLON2, :COLON3
        path = path(node)
        path ? note(path, nesting, node.first_lineno) : inside(node, nesting)
      else inside(node, nesting)
      end
    end

    # What a singleton class defines for itself is not found by its name.
    def missed(path, line)
      @missing << "#{@file}:#{line} #{path}" unless File.read(File.join(ROOT, @file)).match?(/^ *#{path}\b.* = /)
    end

    def inside(node, nesting) = node.children.each { |child| walk(child, nesting) }

    def opened(node, nesting)
      walk(node.children[1], nesting) if node.type == :CLASS
      walk(node.children.last, nesting + [[nesting.last, path(node.children.first)].compact.join("::")])
    end

    # "Core::Season::Site"; nil for what hangs on something that is worked out.
    def path(node)
      case node&.type
      when :CONST then node.children.first.to_s
      when :COLON3 then "::#{node.children.first}"
      when :COLON2
        scope, name = node.children
        scope ? path(scope)&.then { |outer| "#{outer}::#{name}" } : name.to_s
      end
    end

    # As Ruby looks it up: in what it is nested in, the innermost first.
    def note(path, nesting, line)
      first = path[/\w+/]
      scope = nesting.reverse.find { |outer| Object.const_get(outer).const_defined?(first, false) }
      name = [scope, path].compact.join("::")
      return missed(path, line) unless Object.const_defined?(name)

      home = Object.const_source_location(name)&.first or return

      home = home.delete_prefix("#{ROOT}/")
      @named << Named.new(@file, line, name, home) if HOUSE.include?(home[%r{\A\w+(?=/)}])
    end
  end
end
