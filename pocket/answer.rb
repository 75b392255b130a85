# frozen_string_literal: true

module Thistle
  # What a phone asks its own Ruby.
  module Pocket
    # A symbol in what is marshalled: its length, and itself.
    NAMED = /:([\x06-\x7f])(Thistle::[\w:]+)/n
    ELSEWHERE = "This patch was not taken along. Ask again with signal."
    private_constant :NAMED

    class << self
      attr_reader :land, :day

      # library: the server's library and its chances, marshalled.
      def open(library)
        take_rules
        knowledge, chances = read(library)
        knowledge.freeze
        Core::Knowledge.instance_variable_set(:@shipped, knowledge)
        Core::Identify::Chances.keep(knowledge, chances)
        knowledge.plants.size
      end

      def take(clock, land)
        TZInfo::Timezone.turns = clock
        Core::Kept::ANSWERS.clear
        @land = Land.new(read(land))
        Core::Dates.first = @land.habits.dates
        @day = @land.today
        @day.iso8601
      end

      # So many days later than the day on which the land was taken along.
      def later(days)
        @day = land.today + days
      end

      # A bench's answer, the same JSON as the server's of the same address.
      def answer(bench, params)
        JSON.generate(Web.const_get(bench.capitalize)::Answers.bench(desk(bench, params)))
      rescue Core::BadInput => e
        JSON.generate(error: e.message)
      end

      # The same as the server's page of that address: what stands in its <main>. Some of it comes later (rest).
      def page(bench, params)
        patch = patch_of(bench, params)
        locals = { desk: desk(bench, params), patch:, **(bench == "identify" ? { name: nil } : {}) }
        @page = Page.new(params)
        @page.erb("#{bench}/index", locals:)
      rescue Core::BadInput => e
        %(<p class="empty">#{Erubi.h(e.message)}</p>)
      end

      # A part of the last page, for its <div data-later="NUMBER">.
      def rest(number) = @page.rest(number)

      private

      # There are no folders here: a rule's file is found among the sources. Without rules everything would go.
      def take_rules
        found = Sources.paths.values.grep(%r{\Acore/decide/rules/}).size
        raise "The rules did not come along." if found.zero?

        Core::Decide::Rule.define_singleton_method(:all) { @all ||= Sources.in("core/decide/rules").freeze }
      end

      # The patch that is asked about; where none is named, the one that the bench opens with. Never another one.
      def patch_of(bench, params)
        asked = params["patch"].to_s
        return known(asked, bench, params) unless asked.empty?

        land.first_patch if bench == "decide" && params["plant"].to_s.empty?
      end

      # What is done depends on what it is: a patch without a name is named first.
      def known(asked, bench, params)
        patch = land.patch(asked) || raise(Core::BadInput.new(ELSEWHERE, field: :patch))
        named = bench == "identify" || patch.plant || !params["plant"].to_s.empty?
        named ? patch : raise(Core::BadInput.new("Find out what #{patch.code} is first.", field: :patch))
      end

      # What the server marshalled; classes that it names are found in the sources first.
      def read(bytes)
        bytes.scan(NAMED).map { |size, name| name[0, size.ord - 5] }.uniq.each { |name| Object.const_get(name) }
        Marshal.load(bytes) # rubocop:disable Security/MarshalLoad -- the server's own
      end

      def desk(bench, params)
        patch = patch_of(bench, params)
        case bench
        when "identify" then Web::Identify::Desk.new(params, land, day)
        when "decide" then Web::Decide::Desk.new(params, patch, land, day, land.measures)
        else Web::Mix::Desk.new(params, patch, land.measures, land, day)
        end
      end
    end
  end
end
