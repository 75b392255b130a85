# frozen_string_literal: true

require "nokogiri"
require "support/web"

module Thistle
  # Goes to every address of the application: what its pages link to, what their forms send; and then with odd values in
  # the place of each. Which parameters an address reads is learned by watching it read.
  class Walker
    # A hash of parameters that tells which of them were asked for.
    module Watched
      READ = Set.new
      %i[[] fetch key? include? dig].each do |name|
        define_method(name) { |key, *more, &block| READ.add(key.to_s) && super(key, *more, &block) }
      end
      %i[slice values_at except].each do |name|
        define_method(name) { |*keys| READ.merge(keys.flatten.map(&:to_s)) && super(*keys) }
      end
    end

    # The application's parameters are watched.
    module Watching
      def params = super&.tap { |hash| hash.extend(Watched) unless hash.frozen? }
    end

    # A form reads what its contract names.
    module FormWatching
      def initialize(params, **context)
        Watched::READ.merge(self.class::Fields.schema.key_map.map { |key| key.name.to_s }) if params.is_a?(Watched)
        super
      end
    end

    # What differs in kind: nothing, no number, too large a number, no day, a day past all days, long text with what
    # would be markup, half of a structure, coordinates that are none, another address.
    ODD = ["", "-1", "0", "1e400", "9" * 30, "2026-02-30", "99999-01-01", "-4713-01-01", "'\"><script>#{"a" * 400}",
           "[{", "null", "\u{1F4A5}", "-1e308,-1e308,1e308,1e308", '{"type":"Polygon","coordinates":[[]]}',
           '{"type":"LineString","coordinates":[[0,0],["a",null]]}', '{"type":"Point","coordinates":[1e308,0]}',
           "/identify/\r\nhttps://elsewhere.example/"].freeze
    # Numbers at the ends of what a machine holds, and just within what we take, in all fields at once.
    ENDS = %w[1e308 -1e308 1e-308 999999999999 -1].freeze
    NUMBER = /\A-?\d*([.,]\d+)?\z/ # fields that hold one, or nothing yet
    # WALK=all (rake bench walk): every odd value at every parameter of every address. WALK=ends (rake bench hostile):
    # numbers at their ends alone, at every address. Else a sample of each door, each time others: so many odd
    # questions, parts of a path, addresses.
    ONLY_ENDS = ENV["WALK"] == "ends"
    ALL = ENV["WALK"] == "all" || ONLY_ENDS
    SOME = ALL ? ODD.size : 3
    QUESTIONS, PLACES, ADDRESSES = ALL ? [Float::INFINITY, Float::INFINITY, 2] : [3, 1, 1]
    NUMBERED = /-\d+\z/ # one field of several sheets of a kind, "hours-5": the first of them meets the odd values
    # The same name with parts, and bytes that are no text.
    PARTS = ["%<n>s[]=1", "%<n>s[x]=1", "%<n>s[x][]=1", "%<n>s[][x]=1", "%<n>s=1&%<n>s[x]=1", "%<n>s=%%00",
             "%<n>s=%%ff", "%<n>s", "%<n>s[%%ff]=1"].freeze
    # Parts of a path.
    PATHS = %w[0 -1 99999999999999999999 %00 %ff ..%2f..%2fetc %22%3E%3Cscript%3E %0d%0aX:1 %5B%5D].freeze
    FOLLOWED = ALL ? 3 : 2 # links of a kind, after the first
    SLOW = ALL ? 10 : Float::INFINITY # seconds: how fast an answer comes is asked on the bench

    Answer = Struct.new(:what, :code, :seconds, :fault) do
      def bad? = code >= 500 || seconds > SLOW

      def to_s = "#{code} in #{seconds.round(1)} s: #{what}\n#{fault&.message} #{fault&.backtrace&.first(3)}"
    end

    # A route: what it reads, addresses that pages name (3), what forms send there ([path, fields]).
    Door = Struct.new(:verb, :pattern, :reads, :paths, :bodies) do
      def to_s = "#{verb} #{pattern}"
      def fits?(path) = !pattern.match(path).nil?
      def plain? = pattern.to_s.match?(%r{\A[\w./-]+\z})
      def unknown? = paths.empty? && bodies.empty?
      def addresses = paths.first(ADDRESSES)
    end

    attr_reader :doors, :bad, :asked

    # test: a RackTest, which asks.
    def initialize(test)
      @test, @bad, @asked = test, [], 0
      Web::App.prepend(Watching)
      Web::Form.prepend(FormWatching)
      @doors = Web::App.routes.except("HEAD").flat_map do |verb, routes|
        routes.map { |pattern, *| Door.new(verb, pattern, Set.new, [], {}) }
      end
    end

    def gets = doors.select { |door| door.verb == "GET" }
    def others = doors.reject { |door| door.verb == "GET" }

    # Follows every link and remembers every form, until nothing new is found.
    def crawl(from = gets.select(&:plain?).map { |door| door.pattern.to_s })
      queue = from.each { |address| new?(address) }.dup
      while (address = queue.shift)
        visit(address).each { |found| queue << found if new?(found) }
      end
      self
    end

    # An address, or a form with its fields, that no page names.
    def know(verb, path, fields = nil)
      found = door(verb, path) or raise ArgumentError, "#{verb} #{path}"
      return found.paths << path unless fields

      found.reads.merge(fields.keys)
      found.bodies[[path, fields.keys.sort]] = fields
    end

    # Fills what forms leave blank.
    def complete(known)
      others.each do |door|
        door.bodies.each_value do |fields|
          fields.merge!(known.slice(*fields.keys)) { |_, was, good| was.to_s.empty? ? good : was }
        end
      end
    end

    # Every address with odd values: one parameter at a time, as parts, in the path, at its JSON.
    def ask_all
      gets.each do |door|
        door.addresses.each_with_index do |address, n|
          ask("GET", json(address))
          next unless n.zero?

          some(odd_queries(door), QUESTIONS).each { |query| ask("GET", "#{address.split("?").first}?#{query}") }
        end
        odd_paths(door) { |path| ask("GET", path) }
      end
    end

    # The plain pages as they are now: what was sent must not have broken them.
    def look_again
      gets.flat_map(&:addresses).each { |address| ask("GET", address) }
    end

    # Doors that let in what comes without a token.
    def open_doors
      others.reject do |door|
        ask(door.verb, door.bodies.keys.first.first)
        @test.last_response.status == 403
      end
    end

    # Every form with odd values, and where it leads.
    def send_all(token)
      last, first = others.partition { |door| door.verb == "DELETE" || door.to_s.match?(/undo|drop|take-back|leave/) }
      [*first, *last].each do |door|
        door.bodies.first(SOME / 3).each do |(path, _), fields|
          *odd, untouched = odd_bodies(door, fields)
          [*some(odd, QUESTIONS), untouched].each { |body| send(door, path, token, body) }
        end
        odd_paths(door) { |path| ask(door.verb, path, "authenticity_token=#{CGI.escape(token)}") }
      end
    end

    # Sends a form as it is, with what is given in the place of what is blank.
    def send(door, path, token, body)
      body = Rack::Utils.build_nested_query(body) if body.is_a?(Hash)
      ask(door.verb, path, "#{body}&authenticity_token=#{CGI.escape(token)}")
      leads_to = @test.last_response.location or return
      return away(door, body, leads_to) unless leads_to.start_with?("http://example.org/")

      ask("GET", leads_to.delete_prefix("http://example.org").split("#").first)
    end

    def door(verb, path)
      path = path.delete_suffix(".json")
      doors.find { |one| one.verb == verb && one.fits?(path) }
    end

    private

    def away(door, body, leads_to) = bad << Answer.new("#{door} #{body} leads away, to #{leads_to}", 303, 0)

    def json(address) = address.sub(/\?|\z/) { |mark| ".json#{mark}" }

    # Of answers by key, one of a kind stands for all.
    def names(door) = door.reads.to_a.uniq { |name| name.sub(/\[\w+\]/, "[]") }

    def odd_queries(door)
      names = names(door)
      ends = ENDS.map { |value| names.map { |name| "#{name}=#{value}" }.join("&") }
      return ends if ONLY_ENDS

      ends + odd(names) { |name, value| "#{name}=#{CGI.escape(value)}" } +
        names.flat_map { |name| parts(name, all: name == names.first) } +
        ODD.first(SOME).map { |value| names.map { |name| "#{name}=#{CGI.escape(value)}" }.join("&") }
    end

    # So many of a list, spread over it, at another place each time.
    def some(list, most)
      return list if list.size <= most

      @place = @place.to_i + 1
      Array.new(most) { |n| list[((n * list.size / most) + @place) % list.size] }.uniq
    end

    # Each name with its share of the odd values, each time others.
    def odd(names) = names.flat_map { |name| Array.new(SOME) { yield name, ODD[(@turn = @turn.to_i + 1) % ODD.size] } }

    def parts(name, all:)
      forms = all || Web::Sent::PARTED.include?(name[/\A\w+/]) ? PARTS : []
      forms.map { |form| format(form, n: name[/\A\w+/]) }
    end

    # One part of the path at a time.
    def odd_paths(door)
      address = door.paths.first || door.bodies.keys.first&.first or return
      parts = address.split("?").first.split("/")
      places = door.pattern.to_s.split("/").each_index.select { |n| door.pattern.to_s.split("/")[n].match?(/[:(]/) }
      some(places.product(PATHS), PLACES).each do |place, odd|
        yield parts.dup.tap { |path|
                path[place] = odd
              }.join("/")
      end
    end

    def odd_bodies(door, fields)
      names = ((door.reads.to_a | fields.keys) - %w[authenticity_token]).uniq { |name| name.sub(NUMBERED, "") }
      rest = names.to_h { |name| [name, Rack::Utils.build_query(fields.except(name))] }
      ends = ENDS.map do |number|
        Rack::Utils.build_query(fields.transform_values { |value| value.to_s.match?(NUMBER) ? number : value })
      end
      return [*ends, Rack::Utils.build_query(fields)] if ONLY_ENDS

      ends + odd(names) { |name, value| "#{rest[name]}&#{name}=#{CGI.escape(value)}" } +
        names.flat_map { |name| parts(name, all: name == names.first).map { |odd| "#{rest[name]}&#{odd}" } } +
        [Rack::Utils.build_query(fields)]
    end

    def new?(address)
      found = door("GET", address.split("?").first)
      return false if found.nil? || found.paths.include?(address) || found.paths.size > FOLLOWED

      found.paths << address
    end

    # What a page names: links, pictures, parts that it loads.
    def visit(address)
      ask("GET", address)
      return [] unless @test.last_response.media_type == "text/html"

      page = Nokogiri::HTML5(@test.last_response.body)
      page.css("form").each { |form| remember(form, form["action"] || address) }
      page.css("[formaction]").each { |button| remember(page.at_css("##{button["form"]}"), button["formaction"]) }
      page.css("[href], [src], [hx-get]").flat_map { |one| %w[href src hx-get].map { |name| one[name] } }.compact
          .grep(%r{\A/}).map { |found| found.split("#").first }
    end

    # A form as a browser would send it untouched, by where it goes and what it is called.
    def remember(form, action)
      fields = sent(form)
      path, query = action.split("?")
      found = door((fields.delete("_method") || form["method"] || "get").upcase, path) or return
      fields = Rack::Utils.parse_query(query).merge(fields)
      found.reads.merge(fields.keys)
      found.bodies[[path, fields.keys.sort]] ||= fields if found.bodies.size < 6
    end

    def sent(form)
      form.css("[name]").each_with_object({}) do |field, all|
        next if field["type"] == "file" || field["name"] == "authenticity_token"
        next if %w[radio checkbox].include?(field["type"]) && !field["checked"] && all.key?(field["name"])

        all[field["name"]] = field.name == "select" ? option(field) : field["value"] || field.text
      end
    end

    def option(select)
      chosen = select.at_css("option[selected]") || select.css("option").last
      chosen && (chosen["value"] || chosen.text)
    end

    # Asks, and notes what was read.
    def ask(verb, address, body = nil)
      Watched::READ.clear
      began = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      @test.custom_request(verb, address, body)
      note("#{verb} #{address[0, 150]} #{body.to_s[0, 300]}", Process.clock_gettime(Process::CLOCK_MONOTONIC) - began)
      door(verb, address.split("?").first)&.reads&.merge(Watched::READ - %w[splat captures])
    end

    def note(what, seconds)
      @asked += 1
      answer = Answer.new(what, @test.last_response.status, seconds, @test.last_request.env["sinatra.error"])
      bad << answer if answer.bad?
    end
  end
end
