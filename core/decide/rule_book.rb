# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      # The rules that count somewhere: the shipped ones without those that a steward switched off (off: their keys),
      # and the local ones ([LocalRule]). Safety and legal rules stay whatever is asked.
      RuleBook = Value.define(:off, :local) do
        def rules = Rule.all.reject { |rule| off?(rule) } + local
        def off?(rule) = !rule.binding? && off.include?(rule.key)
        def named(key) = local.find { |rule| rule.key == key } || Rule.named(key)
        def dates(from, to) = local.flat_map { |rule| rule.dates(from, to) }
      end

      # Looked up so often that the answers are kept.
      class RuleBook
        KEPT = Kept.new(2000)
        SHIPPED = new(off: [], local: [])

        # Those that concern a method.
        def for(removal) = KEPT.fetch([self, removal]) { rules.select { |rule| rule.concerns?(removal) }.freeze }

        # [[mark, days after it]] on which any rule's answer may change.
        def turns = KEPT.fetch([self, :turns]) { rules.flat_map(&:turns).uniq.freeze }
      end
    end
  end
end
