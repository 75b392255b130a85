# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # A rule looks at a Situation and a method and says no, wait, go or note, or nothing at all.
      #
      #   DrySoil = Rule.new(:dry_soil, about: :pulling, source: "common_practice") do |now|
      #     wait "Dry soil snaps roots; pull the day after rain." if now.soil == :dry
      #   end
      #
      # `about` names the method tags (or :herbicide, :any) that the rule is for. The file's name is the rule's key
      # in camel case; `Rule.all` finds every file in rules/, so a new rule is a new file and nothing else.
      class Rule
        attr_reader :key, :about, :source, :turns

        def self.all
          @all ||= Dir[File.join(__dir__, "rules", "*.rb")].map do |path|
            Rules.const_get(LOADER.inflector.camelize(File.basename(path, ".rb"), path))
          end.freeze
        end

        def self.named(key) = (@named ||= all.to_h { |rule| [rule.key, rule] }).fetch(key)

        # Those that concern a method.
        def self.for(removal) = (@for ||= {})[removal] ||= all.select { |rule| rule.concerns?(removal) }.freeze

        # [[mark, days after it]] on which any rule's answer may change.
        def self.turns = @turns ||= all.flat_map(&:turns).uniq.freeze

        # turns: {mark of the year => days after it} on which its answer may change though stage and soil stay the same.
        def initialize(key, about:, source:, turns: {}, &looks)
          @key = key
          @about = Array(about)
          @source = source
          @turns = turns.to_a.freeze
          @looks = looks
          freeze
        end

        # Reason or nil, for a method that the rule concerns.
        def judge(situation, removal)
          instance_exec(situation, removal, &@looks)
        end

        def concerns?(removal)
          about.include?(:any) || (about.include?(:herbicide) && removal.herbicide?) || removal.is?(*about)
        end

        private

        def no(text) = say(:no, text)
        def wait(text) = say(:wait, text)
        def go(text) = say(:go, text)
        def note(text) = say(:note, text)
        def say(kind, text) = Reason.new(rule: key, kind:, text:, source:)
      end
    end
  end
end
