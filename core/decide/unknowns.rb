# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # Facts that nobody has answered, as questions in the order of how much the answer would change.
      class Unknowns
        # swayed: names of the methods whose verdict an answer decides, those that the plant's file names first; named:
        # how many of them it names.
        Asked = Value.define(:fact, :text, :swayed, :named)
        # What is asked, the answers that are tried, and the one that never opens what safety holds shut.
        Question = Value.define(:text, :answers, :safe)
        QUESTIONS = {
          natives_near: ["Are there desirable plants in reach?", [true, false], true],
          water_m: ["How far is the nearest water?", [5.0, 300.0], 5.0],
          licensed: ["Is someone here whom the law allows to apply herbicide?", [true, false], false],
          cover: ["How much of the ground does it cover?", [15.0, 62.5, 85.0], 15.0],
          slope: ["How steep is the ground?", %w[flat steep], "steep"],
          size: ["How thick are the stems?", %w[seedling thumb wider], "wider"], # of herbs: how old?
          crew: ["How many people are here?", [1, 6], 1],
          full_cover: ["Is there full cover, and training against the sap?", [true, false], false],
          burn_permit: ["Are there a permit and a trained burn crew?", [true, false], false],
          fire_adapted: ["Has the vegetation here always burned?", [true, false], false],
          clean_site: ["Is it sure that nothing was ever sprayed or dumped here?", [true, false], false]
        }.transform_values { |text, answers, safe| Question.new(text:, answers:, safe:) }.freeze

        def initialize(bench)
          @bench, @now = bench, bench.situation
          @rules = bench.facts.rules
        end

        # [Asked], the one that sways most first.
        def asked
          QUESTIONS.filter_map { |fact, question| ask(fact, question) }
                   .sort_by.with_index { |asked, n| [-asked.named, -asked.swayed.size, n] }
        end

        private

        def ask(fact, question)
          return unless @now[fact].nil?

          situations = question.answers.map { |answer| @now.with(fact => answer) }
          swayed = @bench.removals.select { |removal| sways?(fact, removal, situations) }
          return unless swayed.any?

          Asked.new(fact:, text: text(fact, question), swayed: swayed.map(&:name), named: (swayed & @bench.named).size)
        end

        def text(fact, question)
          fact == :size && Removal.sizes_of(@now.plant) != Removal::SIZES ? "How old are the plants?" : question.text
        end

        # Does the answer decide what a rule says of a method that nothing known already forbids?
        def sways?(fact, removal, situations)
          rules = @rules.for(removal)
          asking, rest = rules.partition { |rule| rule.looks.include?(fact) }
          return false if asking.empty? || rest.any? { |rule| !open?(rule) && rule.judge(@now, removal)&.kind == :no }

          [@now, *situations].map { |now| strictest(asking, now, removal) }.uniq.size > 1
        end

        # How much weighs against a method, by some rules alone; nil for nothing.
        def strictest(rules, now, removal)
          rules.filter_map { |rule| rule.judge(now, removal) }.select(&:against?).map(&:weight).max
        end

        # Does a rule look at something that is not answered either?
        def open?(rule) = rule.looks.any? { |fact| QUESTIONS.key?(fact) && @now[fact].nil? }
      end
    end
  end
end
