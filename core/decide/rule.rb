# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # A rule looks at a Situation and a method and says no, wait, go or note, or nothing at all.
      #
      #   DrySoil = Rule.new(:dry_soil, about: :pulling, looks: %i[soil water_m], source: "common_practice",
      #                      says: "Roots are not pulled from dry soil.") do |now|
      #     wait "Dry soil snaps roots; pull the day after rain." if now.soil == :dry
      #   end
      #
      # `about` names the method tags (or :herbicide, :any) that the rule is for; `looks` the facts it reads; `says` is
      # the rule in a sentence for the rule book. The file's name is the rule's key in camel case; `Rule.all` finds
      # every file in rules/, so a new rule is a new file and nothing else.
      class Rule
        # force: :craft, what the trade knows; :school, where practitioners differ; :safety and :legal, which nobody
        # switches off.
        FORCES = %i[safety legal school craft].freeze

        attr_reader :key, :about, :looks, :says, :force, :source, :turns

        # [Rule], one of each file in rules/, in the order of their names.
        def self.all
          @all ||= Dir[File.join(__dir__, "rules", "*.rb")].map do |path|
            Rules.const_get(LOADER.inflector.camelize(File.basename(path, ".rb"), path))
          end.freeze
        end

        def self.named(key) = (@named ||= all.to_h { |rule| [rule.key, rule] }).fetch(key)

        # turns: {mark of the year => days after it} on which its answer may change though stage and soil stay the same.
        def initialize(key, about:, looks:, says:, source:, force: :craft, turns: {}, &answer)
          @key, @about, @looks, @says, @force, @source = key, Array(about), looks, says, force, source
          @turns = turns.to_a.freeze
          @answer = answer
          freeze
        end

        # Reason or nil, for a method that the rule concerns.
        def judge(situation, removal)
          instance_exec(situation, removal, &@answer)
        end

        def concerns?(removal) = self.class.concerns?(about, removal)

        # Is a method among those that some tags mean?
        def self.concerns?(about, removal)
          about.include?(:any) || (about.include?(:herbicide) && removal.herbicide?) || removal.is?(*about)
        end

        def binding? = %i[safety legal].include?(force)
        def title = self.class.title(key).capitalize

        # What a rule is called, by its key; a few by plainer words than the key has.
        def self.title(key) = CALLED.fetch(key.to_sym) { key.to_s.tr("_", " ") }
        CALLED = { licence: "licensed person", labelled_for_water: "for use in water",
                   smothers_neighbours: "smothers what is around", stub_as_kept: "stub as this land keeps it" }.freeze
        private_constant :CALLED

        private

        def no(text) = say(:no, text)
        def ask(text) = say(:ask, text)
        def wait(text) = say(:wait, text)
        def go(text) = say(:go, text)
        def note(text) = say(:note, text)
        def say(kind, text) = Reason.new(rule: key, kind:, text:, source:)
      end
    end
  end
end
