# frozen_string_literal: true

# Ruby on a phone (compiled to WebAssembly, in a worker of the browser): core and the benches from the server's own
# source, the library as the server read it. No server, no file, no gem. web/pocket/pack.rb says what comes along, and
# rules.js puts it here.

require "date"
require "delegate"
require "digest"
require "forwardable"
require "json"
require "set"

# What is here, or comes with the pack, or is for what asks the server.
module Kernel
  ELSEWHERE = %w[json_schemer rgeo rgeo/geo_json rgeo/proj4 fiddle highs numo/narray tzinfo matrix yaml tmpdir io/wait
                 dry/validation].freeze
  alias required_here require
  def require(name) = ELSEWHERE.include?(name) || required_here(name)
end

module Thistle
  ROOT = "/"

  # Finds a constant by its name in the sources of the pack, as Zeitwerk does in folders.
  module Sources
    NAMES = { "geojson" => "GeoJSON", "pocket" => "Pocket" }.freeze

    class << self
      attr_reader :paths

      def take(sources)
        @sources = sources
        @paths = sources.keys.to_h { |path| [name_of(path), path] }
        @folders = @paths.keys.flat_map { |name| folders_of(name.split("::")) }.to_set
        @read = {}
      end

      # The constant in a namespace; nil where nothing here is called so.
      def find(space, name)
        full = "#{space}::#{name}".delete_prefix("Thistle::")
        path = @paths[full]
        if path && !@read[path]
          @read[path] = true
          eval(@sources.fetch(path), TOPLEVEL_BINDING, path) # rubocop:disable Security/Eval -- the server's own source
          Object.const_get("#{space}::#{name}")
        elsif @folders.include?(full)
          Object.const_get(space).const_set(name, Module.new)
        end
      end

      # All that stands in a folder, in the order of the files' names.
      def in(folder)
        paths.select { |_, path| path.start_with?("#{folder}/") }.sort_by(&:last)
             .map { |name, _| Object.const_get("Thistle::#{name}") }
      end

      private

      def folders_of(parts) = (1...parts.size).map { |n| parts.first(n).join("::") }

      def name_of(path)
        path.delete_suffix(".rb").split("/").map do |part|
          NAMES[part] || part.split("_").map(&:capitalize).join
        end.join("::")
      end
    end
  end
end

# Looks outward from where a constant was named.
class Module
  alias missing_elsewhere const_missing
  def const_missing(name)
    spaces = to_s.delete_prefix("#<Class:").delete_suffix(">").split("::")
    return missing_elsewhere(name) unless spaces.first == "Thistle"

    spaces.size.downto(1) do |depth|
      found = Thistle::Sources.find(spaces.first(depth).join("::"), name)
      return found if found
    end
    missing_elsewhere(name)
  end
end
