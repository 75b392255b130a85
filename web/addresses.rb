# frozen_string_literal: true

require "yaml"

module Thistle
  module Web
    # Every route by what it is about, what is done there, and which records it names (web/addresses.yml).
    module Addresses
      # thing: a key of knowledge/roles.yml, "anyone", or "@lists" and "@reports", by the parameter `kind`; act: of
      # Core::Policy::ACTS; named: [[parameter, kind]]; signed: parameters that hold the name of whoever decides; sure:
      # must one show first who one is?
      Address = Core::Value.define(:thing, :act, :named, :signed, :sure) do
        # The thing that these parameters ask for; nil where there is none of the kind.
        def thing_of(params) = thing.start_with?("@") ? KINDS.fetch(thing)[params["kind"]] : thing

        # [[kind, id]] of the records that these parameters name; an id that is none stands as 0.
        def records(params)
          named.filter_map do |parameter, kind|
            value = params[parameter]
            next if value.nil? || value == ""

            kind = params[kind.delete_prefix("@")].to_s.scrub if kind.start_with?("@")
            [kind.to_sym, Whole.read(value)]
          end
        end
      end

      HEADS = %w[always lists reports signed sure pocket].freeze
      TABLE = YAML.safe_load_file("#{ROOT}/web/addresses.yml")
      # Records that a phone keeps until they can be sent: ["POST /work/treatments"].
      POCKET = TABLE.fetch("pocket").freeze
      KINDS = { "@lists" => TABLE["lists"], "@reports" => TABLE["reports"] }.freeze

      def self.named(words) = words.map { |pair| pair.split(":") }

      # {"GET /survey" => Address}
      ALL = TABLE.except(*HEADS).flat_map do |thing, acts|
        acts.flat_map do |act, routes|
          routes.map do |words|
            verb, path, *records = words.split
            route = "#{verb} #{path}"
            signed, sure = TABLE["signed"].fetch(route, []), TABLE["sure"].include?(route)
            [route, Address.new(thing:, act:, named: named(TABLE["always"] + records), signed:, sure:)]
          end
        end
      end.to_h.freeze
      private_constant :TABLE

      # [route, parameters in the path] of the route of an application that answers a path; nil for none.
      def self.route(app, verb, path)
        @likely ||= Hash.new { |all, key| all[key] = likely(app, *key) }
        @likely[[verb, *signs(path)]].each do |pattern|
          found = pattern.params(path) and return ["#{verb} #{pattern}", found]
        end
        nil
      end

      # [Address, parameters in the path] of a path alone; nil where it is none of the application's.
      def self.at(app, verb, path)
        @shapes = {} if @shapes.nil? || @shapes.size > SHAPES
        @shapes.fetch([verb, path]) do |key|
          route, named = route(app, verb, path)
          @shapes[key] = route && [of(route), named.freeze].freeze
        end
      end
      SHAPES = 5000 # that are kept
      private_constant :SHAPES

      # What routes of a path have in common: how deep it is, and where it begins.
      def self.signs(path) = [path.count("/"), path[%r{\A/[^/]*}]]

      # Patterns with these signs.
      def self.likely(app, verb, *signs)
        app.routes.fetch(verb, []).filter_map do |pattern, _|
          pattern if signs(pattern.to_s) == signs
        end
      end
      private_class_method :signs, :likely

      # By the words of Sinatra's route; a HEAD is a GET. Raises KeyError for a route without a row.
      def self.of(route) = ALL.fetch(route.sub(/\AHEAD /, "GET "))
    end
  end
end
