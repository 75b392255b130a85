# frozen_string_literal: true

module Thistle
  module Core
    module Replant
      # What is known of the ground that is planted, each value with whose word it is. What nobody said and nothing
      # tells is nil: a question, never a guess.
      class SiteSheet
        # value; from: whose word it is, in words; source: a key of sources.
        Said = Value.define(:value, :from, :source)
        # Its facts in the order in which they are asked, with what may be said. nil: a number or a list.
        CHOICES = {
          canopy: nil, light: Native::LIGHTS, moisture: Native::MOISTURES, soil: Native::SOILS, ph: nil,
          flood: { "never" => "never", "spring" => "for days", "weeks" => "for weeks" },
          deer: { "no" => "hardly any", "yes" => "they browse" },
          salt: { "no" => "no", "yes" => "road or sea salt" },
          fire: { "no" => "no", "yes" => "fire comes here" }, house_m: nil,
          lines: { "no" => "none", "yes" => "buried lines" }, view_cm: nil,
          seen: { "nobody" => "nobody much", "passers" => "passers-by",
                  "neighbours" => "people next door, a front yard" },
          remnant: { "no" => "no", "yes" => "good native ground beside it" }, jobs: Native::JOBS
        }.freeze
        NUMBERS = { canopy: 0..100, ph: 3..10, house_m: 0..100_000, view_cm: 5..5000 }.freeze
        NEEDED = %i[light moisture].freeze # nothing is offered without them

        # facts: {key => Said}; place: Native::Place; m2: of the ground, nil where it is not known. Raises BadInput
        # (field: the key) for what cannot be said.
        def initialize(facts, place:, m2: nil)
          @facts = facts.select { |_, said| said && !said.value.nil? }.freeze
          @place, @m2 = place, m2
          @facts.each { |key, said| check(key, said.value) }
          freeze
        end

        attr_reader :place, :m2

        # The value of a fact; nil where it is not known.
        def [](key) = @facts[key]&.value
        def said(key) = @facts[key]

        # Jobs to be done: those that the invader did, or that are wanted.
        def jobs = self[:jobs] || []

        # Facts that nobody knows.
        def open = CHOICES.keys.reject { |key| @facts.key?(key) || key == :jobs }

        # Can natives be chosen for it?
        def enough? = !place.region.nil? && NEEDED.all? { |key| self[key] }

        private

        def check(key, value)
          choices = CHOICES.fetch(key) { raise BadInput.new("#{key} is not on the sheet.", field: key) }
          return number(key, value) unless choices
          return if [value].flatten.all? { |one| choices.key?(one) }

          raise BadInput.new("This is one of #{choices.values.join(", ")}.", field: key)
        end

        def number(key, value)
          range = NUMBERS.fetch(key)
          return if value.is_a?(Numeric) && range.cover?(value)

          raise BadInput.new("This is a number from #{range.first} to #{range.last}.", field: key)
        end
      end
    end
  end
end
