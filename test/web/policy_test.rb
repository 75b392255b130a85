# frozen_string_literal: true

require "support/web"
require "yaml"

module Thistle
  # Every route × every role × own and another's property × page and JSON, held against the table as it is written
  # (knowledge/roles.yml, web/addresses.yml), read here anew and simply.
  class PolicyTest < RackTest
    ROLES = %w[steward lead applicator volunteer landowner].freeze
    # What fills an address that names no record of a property.
    WORDS = { "key" => "garlic_mustard", "left" => "garlic_mustard", "right" => "shiny_geranium", "number" => "1",
              "row" => "1", "ids" => "1", "zoom" => "1", "column" => "1", "kind" => "geojson" }.freeze
    KINDS = { "/records/lists" => %w[patches visits treatments checks people products seed],
              "/records/reports" => %w[authority notice hours],
              "/records/:kind/:id" => %w[treatment check observation planting plan] }.freeze

    # What must stand in a row that holds no more.
    DUMMY = { integer: 1, float: 1.0, boolean: false, date: Date.new(2026, 1, 1), datetime: Time.utc(2026) }.freeze

    # Lets the gate decide, and answers before a route does anything.
    module Weighed
      LET_IN = 299

      def admit(route)
        super
        halt LET_IN if PolicyTest.weighing
      end

      # What is refused is not drawn.
      def refuse(code, message) = PolicyTest.weighing ? status(code) && "" : super
    end

    class << self
      attr_accessor :weighing
    end

    def setup
      super
      Web::App.prepend(Weighed)
      @roles, @table = %w[knowledge/roles web/addresses].map { |name| YAML.safe_load_file("#{ROOT}/#{name}.yml") }
      @home = Store::Property.first(prefix: "Q")
      @other = Store::Property.first(prefix: "P")
      @people = ROLES.to_h { |role| [role, member(role)] }
      self.class.weighing = true
    end

    def teardown
      self.class.weighing = false
      super
    end

    def test_every_route_has_a_row_and_every_row_a_route
      routes = Web::App.routes.except("HEAD").flat_map { |verb, list| list.map { |pattern, *| "#{verb} #{pattern}" } }

      assert_equal routes.uniq.sort, rows.keys.sort
    end

    def test_every_route_lets_in_whom_the_table_names_and_nobody_else
      wrong = ROLES.flat_map { |role| wrong_for(role) }

      assert_empty wrong
    end

    def test_nobody_gets_in_without_an_account
      Store::Setting.write(Store::Account::DEMO, "")
      clear_cookies
      inside = rows.keys.reject { |route| rows[route].first == "anyone" }.reject do |route|
        ask(route, address(route, @home, kinds(route).first, ".json"))
        last_response.status == (route.start_with?("GET") ? 401 : 403) # a form without a session has no token
      end

      assert_empty inside
    end

    # The table as it was printed and read from end to end, beside a list that somebody made who walked the routes
    # before there was a table: a change of it is read again.
    def test_the_table_is_the_one_that_was_read
      read = File.readlines("#{ROOT}/test/fixtures/who_may.txt", chomp: true).reject { |line| line.start_with?("#") }
      said = rows.map { |route, (thing, act)| "#{letters(thing, act).ljust(6)} #{route}" }

      assert_empty (said - read) + (read - said)
    end

    private

    def rows
      @rows ||= @table.except("always", "lists", "reports", "signed", "sure", "pocket").flat_map do |thing, acts|
        acts.flat_map do |act, list|
          list.map do |line|
            [line.split.first(2).join(" "), [thing, act, line.split.drop(2)]]
          end
        end
      end.to_h
    end

    def letters(thing, act)
      return "*" if thing == "anyone" || thing.start_with?("@")

      row = @roles["things"].fetch(thing)
      own = row.fetch("own", {}).fetch(act, [])
      ROLES.filter_map do |role|
        letter = role[0].upcase.sub("L", role == "lead" ? "L" : "O")
        next letter if row.fetch(act, []).intersect?([role, "signed_in"])

        letter.downcase if own.include?(role)
      end.join
    end

    def member(role)
      person = Store::Person.create(name: "P. #{role}", roles: "[]", training: "[]", cannot: "[]")
      account = Store::Account.create(name: "A. #{role}", email: "#{role}@a.example", status_id: 2)
      account.is(person)
      Store::Membership.give(account, @home, role)
      account
    end

    def wrong_for(role)
      clear_cookies
      look_as(@people[role])
      rows.flat_map do |route, (thing, act, _)|
        next [] if thing == "anyone"

        [[@home, true], [@other, false]].flat_map do |property, mine|
          kinds(route).flat_map do |kind|
            should = mine && may?(role, resolved(thing, kind), act)
            ["", ".json"].filter_map { |form| fault(role, route, address(route, property, kind, form), should) }
          end
        end
      end
    end

    def fault(role, route, address, should)
      ask(route, address)
      in_there = last_response.status == Weighed::LET_IN || last_response.location.to_s.end_with?("/account/confirm")
      "#{role} #{in_there ? "gets" : "does not get"} #{route.split.first} #{address}" if in_there != should
    end

    def resolved(thing, kind)
      case thing
      when "@lists" then @table["lists"][kind]
      when "@reports" then @table["reports"][kind]
      else thing
      end
    end

    # Nothing here is anybody's own: that is asked for below.
    def may?(role, thing, act) = @roles["things"].fetch(thing).fetch(act, []).intersect?([role, "signed_in"])

    def kinds(route)
      pattern = route.split.last
      found = KINDS.find { |start, _| pattern.start_with?(start) && pattern.include?(":kind") }
      found ? found.last : [nil]
    end

    # Where a route would be asked for, of a property's records, or of the property itself where it names none.
    def address(route, property, kind, form)
      named = rows[route].last.map { |pair| pair.split(":") }
      path, query = route.split.last.dup, (named.empty? ? { "at" => property.id } : {})
      named.each do |parameter, what|
        what = { "plan" => "season_plan" }.fetch(kind, kind) if what.start_with?("@")
        id = an_id(what, property)
        path.include?(":#{parameter}") ? path.sub!(":#{parameter}", id.to_s) : query[parameter] = id
      end
      path.sub!(":kind", kind) if kind
      WORDS.each { |name, word| path.sub!(":#{name}", word) }
      query["at"] = property.id if named.any? && named.all? { |_, what| what == "person" } # of the whole copy
      "#{path.gsub(/:\w+/, "1")}#{form}#{"?#{Rack::Utils.build_query(query)}" if query.any?}"
    end

    # A record of a kind on a property: one that is there, or a row that holds no more than it must.
    def an_id(what, property)
      (@ids ||= {})[[what, property.id]] ||= record(what.to_sym, property)
    end

    def record(kind, property)
      return property.id if kind == :property
      return Store::Person.first.id if kind == :person

      table, column, leads_to = Store::Belongs::THROUGH[kind] || [Store::Belongs::OWN.fetch(kind), :property_id, nil]
      row({ column => leads_to ? an_id(leads_to.to_s, property) : property.id }, table)
    end

    def row(known, table)
      db = Sequel::Model.db
      db[table].where(known).get(:id) || db.synchronize do
        db.run("PRAGMA foreign_keys=OFF")
        must = db.schema(table).reject { |name, told| told[:allow_null] || told[:default] || name == :id }
        db[table].insert(must.to_h do |name, told|
          [name, DUMMY.fetch(told[:type], "x#{known.values.first}")]
        end.merge(known))
      end
    end

    def ask(route, address)
      verb = route.split.first
      verb == "GET" ? get(address) : send_form(verb.downcase, address)
    end

    def look_as(account)
      self.class.weighing = false
      get "/glossary"
      token = last_response.body[/name="csrf" content="([^"]+)"/, 1]
      post "/account/look-as", account: account.id, authenticity_token: token
      self.class.weighing = true
      @token = token
    end
  end
end
