# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # The smallest changes that would make a method go: found by changing what people can change and asking the rules
      # again. A change may need a day as well.
      #
      #   Changes.new(bench).of(removal)  # => [Change], fewest changes first
      class Changes
        # changed: {fact => value}; words of each; date: the first day on which it goes then, nil for the chosen day.
        Change = Value.define(:changed, :words, :date)
        # What a person could change, in the words of the page; the value, or what works it out from the method.
        CHANGEABLE = {
          licensed: [true, "a licensed person on site"],
          aquatic_label: [true, "an aquatic label with its permit"],
          natives_near: [false, "no desirable plant in reach"], settled: [true, "the name settled"],
          reported: [true, "a report made"],
          burn_permit: [true, "a permit and a trained burn crew"],
          fire_adapted: [true, "ground whose vegetation has always burned"],
          full_cover: [true, "full cover and training against the sap"],
          clean_site: [true, "ground that was surely never sprayed"],
          new_planting: [false, "no young planting among it"],
          few: [true, "one or a few plants"],
          purpose: [:hold, "holding it down for a season as all that is asked"],
          aim: [nil, "the ground for something else"],
          tools: [nil, "the tools"], crew: [nil, "more hands"]
        }.freeze
        MOST, TRIED = 3, 24 # changes shown for one method, and sets of changes that are tried, the smallest first
        SIZES = { "seedling" => "seedlings", "wider" => "stems wider than a wrist" }.freeze
        THINNED = 40.0 # percent of cover that a permitted treatment leaves (memory)

        def initialize(bench)
          @bench, @facts, @site = bench, bench.facts, bench.site
        end

        # [Change] that would let a method go that does not now; empty where nothing that people can change would do.
        def of(removal)
          verdict = @bench.verdict(removal)
          return [] if verdict.go?
          return [Change.new(changed: {}, words: [], date: verdict.until)] if verdict.wait?

          found = sets(verdict).first(TRIED).filter_map { |changed| change(removal, changed) }
          smallest(found).sort_by.with_index { |one, n| [one.changed.size, one.date || @facts.date, n] }.first(MOST)
        end

        private

        # Sets of facts that silence every no at once, the smallest first; empty when one of them nobody can change.
        def sets(verdict)
          remedies = verdict.reasons.select { |reason| reason.kind == :no }
                            .map { |reason| remedies(verdict.removal, reason) }
          return [] if remedies.empty? || remedies.any?(&:empty?)

          merged = remedies.first.product(*remedies.drop(1)).filter_map { |picks| merge(picks) }.uniq
          merged.sort_by.with_index { |one, n| [one.size, n] }
        end

        # [{fact => value}] each of which silences a no by itself.
        def remedies(removal, reason)
          rule = @facts.rules.named(reason.rule)
          candidates(rule, removal).reject do |changed|
            now = Projection.new(@facts.with(**changed), @site).on(@facts.date)
            rule.judge(now, removal)&.kind == :no
          end
        end

        # Changes of the facts that the rule looks at, least first.
        def candidates(rule, removal)
          plain = CHANGEABLE.slice(*rule.looks).map { |fact, (value, _)| { fact => worked_out(fact, removal, value) } }
          found = plain + rule.looks.flat_map { |fact| several(fact) }
          found.reject { |changed| changed.all? { |fact, value| @facts[fact] == value } }
        end

        # Facts of which more than one other value would do.
        def several(fact)
          case fact
          when :cover then (@facts.cover || 100) > THINNED ? [{ cover: THINNED }] : []
          when :soil then [{ soil: :moist }, { soil: :dry }]
          when :size then (Removal.sizes_of(@facts.plant) - [@facts.size]).map { |size| { size: } }
          when :stance then %w[stem any].map { |stance| { stance: } }
          when :schools then other_schools
          else []
          end
        end

        def worked_out(fact, removal, value)
          case fact
          when :tools then ((@facts.tools || []) | removal.kit).sort
          when :crew then removal.crew
          else value
          end
        end

        def other_schools
          mine = @facts.schools || School.defaults
          asked = Knowledge.shipped.schools.values.select do |school|
            school.key != "herbicide" && school.about?(@facts.plant)
          end
          asked.flat_map do |school|
            question = school.key.to_sym
            (school.options.keys - [mine.fetch(question)]).map { |option| { schools: mine.merge(question => option) } }
          end
        end

        # One set of changes, or nil where two picks want different things of the same fact.
        def merge(picks)
          picks.reduce do |all, changed|
            return nil if changed.any? { |fact, value| all.key?(fact) && all[fact] != value }

            all.merge(changed)
          end
        end

        # Asked again with them changed: go today, from a day, or not at all.
        def change(removal, changed)
          date = @bench.with(**changed).opens(removal) or return
          Change.new(changed:, words: changed.map { |fact, value| words(fact, value) },
                     date: date == @facts.date ? nil : date)
        end

        # Without those that hold another way and more; sizes and schools are told apart, of the rest the soonest is
        # enough.
        def smallest(found)
          least = found.reject do |one|
            found.any? { |other| other.changed.size < one.changed.size && other.changed <= one.changed }
          end
          least.group_by { |one| one.changed.keys }.flat_map do |keys, alike|
            keys.intersect?(%i[size schools]) ? alike.uniq(&:words) : alike.min_by(1) { |one| one.date || @facts.date }
          end
        end

        def words(fact, value)
          case fact
          when :soil then "#{value} soil"
          when :size then "#{size_words(value)} only"
          when :stance then value == "stem" ? "stem herbicide allowed here" : "any use on the label allowed here"
          when :schools then school_words(value)
          when :tools then "the tools for it"
          when :crew then "#{value} people"
          when :cover then "a stand that a permitted treatment has thinned below half"
          else CHANGEABLE.fetch(fact).last
          end
        end

        def size_words(size)
          stems = Removal.sizes_of(@facts.plant) == Removal::SIZES
          stems ? SIZES.fetch(size, "#{size} stems") : Removal::AGES.fetch(size)
        end

        def school_words(schools)
          mine = @facts.schools || School.defaults
          key, option = schools.find { |question, answer| mine[question] != answer }
          "the school “#{Knowledge.shipped.schools.fetch(key.to_s).label(option)}”"
        end
      end
    end
  end
end
