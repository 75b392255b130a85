# frozen_string_literal: true

module Thistle
  module Web
    module Recheck
      # A patch's years ahead, under the ways of going on that the address names; one of them is drawn.
      class OutlookDesk
        MOST = 4 # methods beside each other
        LIMITS = { "visits" => 1..6, "found" => 50..99, "years" => 5..40, "clean" => 1..10 }.freeze
        STEPS = 6 # parameters in the picture of what matters

        attr_reader :patch, :errors

        def initialize(params, patch, today)
          @params, @patch, @today, @errors = params, patch, today, {}
          @read = Store::PatchOutlook.new(patch, today)
        end

        def stages = @read.stages
        def neighbours = @read.neighbours
        def counted? = @read.counted?
        def plants = @read.plants
        def currency = @read.rates.currency
        def removals = @read.removals
        def past = @read.past
        def now_counted = @read.now_counted
        def first_year = @read.first_year

        # A number of the form, within what it may be; what is none is said, and the usual one counts.
        def [](name)
          limits = LIMITS.fetch(name)
          typed = @params[name]
          return usual(name) unless typed.is_a?(String) && !typed.empty?

          number = Integer(typed, 10, exception: false)
          return number if number && limits.cover?(number)

          errors[name.to_sym] = "is a whole number from #{limits.begin} to #{limits.end}"
          usual(name)
        end

        def usual(name)
          return (stages.range("found").likely * 100).round if name == "found"

          { "visits" => 1, "years" => 30, "clean" => 3 }.fetch(name)
        end

        def error(field) = errors[field]

        # Keys of the methods that are compared.
        def chosen
          asked = Array(@params["ways"]).grep(String)
          known = removals.map(&:key)
          (known & asked).first(MOST).then { |found| found.empty? ? known.first(2) : found }
        end

        # [Core::Recheck::Outlook::Answer], one a way.
        def played
          @played ||= begin
            LIMITS.each_key { |name| self[name] } # each says what is wrong with it
            outlook.compare(ways)
          end
        end

        # The answer that is drawn.
        def shown
          played.find { |answer| answer.strategy.key == @params["show"] } || played.first
        end

        # How many of the drawn futures fit what was counted; nil where nothing was.
        def fit = outlook.fit
        def behind = past.any? ? outlook.behind : []

        # The largest of what matters, with what each way of the parameter would bring.
        def matters = shown.matters.select { |matter| matter.span >= 0.5 }.first(STEPS)

        # Does seed last longer than a year or two, so that stirring is a question?
        def stirs? = stages.seeds? && patch.plant.seed_bank_years["likely"] > 1

        private

        def outlook
          @outlook ||= @read.outlook(horizon: self["years"], clean: self["clean"], changes: found)
        end

        # The share that a visit finds, as somebody set it.
        def found
          return {} unless @params["found"].is_a?(String) && self["found"] != usual("found")

          likely = self["found"] / 100.0
          { "found" => { low: likely * 0.9, likely:, high: 1 - ((1 - likely) / 2) } }
        end

        def ways
          visits = self["visits"]
          kept = chosen.map { |key| strategy(key, visits:) }
          first = kept.first
          stirred = first.with(key: "stirred", stirred: true) if stirs?
          [*kept, stirred, first.with(key: "skipped", skips: [0]), first.with(key: "stopped", visits: 0)].compact
        end

        def strategy(key, **how) = @read.strategy(Core::Knowledge.shipped.removal(key), **how)
      end
    end
  end
end
