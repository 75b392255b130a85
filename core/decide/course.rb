# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # A chosen method as a course over years: seed first, the knock-down in its window, what goes where, the returns,
      # the passes of later years, what goes back, and the look that ends it. Dates come from the season room.
      #
      #   Course.new(bench, removal).steps  # => [Step], soonest first
      class Course
        # kind: :seed, :mark, :treat, :disposal, :check, :replant or :close. on..to: the days for it; removal: a method,
        # or nil.
        Step = Value.define(:kind, :on, :to, :text, :source, :removal)
        YEARS = 12 # as far as a course is written out
        CLEAN = 2 # clean yearly checks before it is closed (common practice)

        def initialize(bench, removal, knowledge: Knowledge.shipped)
          @bench, @removal, @knowledge = bench, removal, knowledge
          @facts, @site, @plant = bench.facts, bench.site, bench.facts.plant
          @verdict = bench.verdict(removal)
        end

        # The first day on which the method goes; nil where it never does within a year.
        def begins = @begins ||= @verdict.go? ? @facts.date : @verdict.until

        def possible? = !begins.nil?

        # [Step], soonest first; none where the method is never let go within a year.
        def steps
          return [] unless possible?

          @steps ||= [*seed, *standing, knock_down, *disposal, *returns, *passes, *replanting, *closing]
                     .sort_by { |step| [step.on, KINDS.index(step.kind)] }.freeze
        end

        KINDS = %i[seed mark treat disposal check replant close].freeze

        # Crew hours until it is quiet, as planned; nil where there is no end in sight. Those of one pass are another
        # figure.
        def hours = @verdict.hours_to_quiet
        def pass_hours = @verdict.hours
        def years = @verdict.years_to_quiet

        private

        # Seed that ripens before the knock-down is bagged first.
        def seed
          return [] if @removal.is?(:seed_stop) || !@plant.phase?(:ripe_seed) || !@facts.bears_seed?

          ripe = @facts.calendar(@site).next(:ripe_seed, @facts.date)
          return [] unless ripe && ripe <= begins && @plant.is?(:seeds)

          collect = @knowledge.removal("seed_collect")
          [step(:seed, [ripe, @facts.date].max, "Stop seed first: #{collect.text}", collect.source, removal: collect)]
        end

        # What is marked now and done in season, where that school is kept.
        def standing
          stub = @knowledge.removal("tall_marker_cut")
          return [] unless begins > @facts.date && @removal.is?(:felling) && @facts.school(:cut_when) == "tall_stub" &&
                           @bench.kind(stub) == :go

          [step(:mark, @facts.date, stub.text, stub.source, removal: stub)]
        end

        def knock_down
          window = @bench.windows(@removal).find { |span| begins.between?(span.from, span.to) }
          step(:treat, begins, "#{@removal.name}: #{@removal.text}", @removal.source,
               to: window&.to || @verdict.closes, removal: @removal)
        end

        def disposal
          return [] unless @removal.removes? || @removal.is?(:seed_stop)

          safety = Safety.new(@bench.situation.with(date: begins, stage: stage(begins)), @removal)
          lines = [*safety.disposal, safety.never].compact
          [step(:disposal, begins, lines.map(&:text).join(" "), lines.first.source)]
        end

        def returns
          @returns ||= Recheck::Returns.new(plant: @plant, removal: @removal, done_on: begins, site: @site)
                                       .visits.map do |visit|
            step(visit.kind == "treat" ? :treat : :check, visit.due_on, visit.text, visit.source)
          end
        end

        # The same again each year until it is quiet.
        def passes
          return [] unless years && years > 1 && @removal.removes?

          (1...[@verdict.effort.passes, YEARS].min).filter_map do |year|
            on = next_open(begins >> (12 * year)) or next
            words = "Pass #{year + 1} of #{@verdict.effort.passes}, on what came back: #{@removal.name.downcase}"
            step(:treat, on, words, @removal.source, removal: @removal)
          end
        end

        # The day itself where the method's window of that year holds it, else the window's nearest day.
        def next_open(date)
          windows = @bench.windows(@removal).map do |span|
            months = 12 * (date.year - span.from.year)
            (span.from >> months)..(span.to >> months)
          end
          window = windows.min_by { |span| span.cover?(date) ? 0 : (span.begin - date).to_i.abs }
          window ? date.clamp(window.begin, window.end) : date
        end

        def replanting
          return [] unless @removal.removes? && !@plant.aquatic?

          opened = begins >> (12 * [(years || 1) - 1, 0].max.clamp(0, 2))
          season = Replant::Sowing.new(@site).windows("dormant").first
          from = season ? later(season.from, opened) : opened
          text = "Put something back: natives of this site#{jobs}. Opened ground fills with the next weed."
          [step(:replant, from, text, "common_practice", to: season && (from + (season.to - season.from).to_i))]
        end

        def jobs
          named = @plant.jobs.map { |name| name.tr("_", " ") }.join(", ")
          " that take over its work here: #{named}" if @plant.jobs.any?
        end

        def later(date, from)
          date >>= 12 while date < from
          date
        end

        def closing
          return [] unless years && @removal.removes?

          on = [(begins >> (12 * (years + CLEAN))) - 14, *returns.map { |visit| visit.on + 1 }].max
          [step(:close, on, "After #{CLEAN} clean yearly checks: say whether it is over", "common_practice")]
        end

        def stage(date) = Projection.new(@facts, @site).on(date).stage

        def step(kind, on, text, source, to: nil, removal: nil)
          Step.new(kind:, on:, to: to && [to, on].max, text:, source:, removal:)
        end
      end
    end
  end
end
