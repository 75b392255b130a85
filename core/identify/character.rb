# frozen_string_literal: true

module Thistle
  module Core
    module Identify
      # Something to look at: its states, how often a careful volunteer gets it wrong, how much effort it takes,
      # what the plant or the year must be in (`shows`), and whether it means touching (cut, dig, crush, break).
      # A measured character takes a number in its `unit`; its states are the stretches between its `edges`.
      class Character
        # How often, as shares; a state that a file does not list for a described character counts as never (memory).
        SHARES = { "always" => 0.96, "usually" => 0.75, "sometimes" => 0.3, "rarely" => 0.06, "never" => 0.005 }.freeze
        MIXED = 0.1 # how often a state is taken for one beside it (memory)
        SLACK = 1.1 # a specimen may be that much outside the range that a flora gives (memory)

        attr_reader :key, :label, :hint, :group, :shows, :error, :effort, :touch, :states, :unit, :edges

        def initialize(key:, label:, group:, shows:, error:, effort:, **more)
          @key, @label, @group, @shows, @error, @effort = key, label, group, shows, error, effort
          @hint, @touch, @forms, @usual = more.values_at(:hint, :touch, :of, :usual)
          @unit, @edges = more[:measured]&.values_at("unit", "edges")
          @states = (@edges ? stretches : more[:states]).freeze
          @near = neighbours(more.fetch(:near, [])).freeze
          freeze
        end

        def measured? = !edges.nil?
        def described?(plant) = plant.characters.key?(key)

        # Does such a plant have this part at all?
        def for?(plant) = @forms.nil? || @forms.include?(plant.form.to_s) || described?(plant)

        # The state that an answer falls in: the answer itself, or the stretch that a typed number lies in.
        # Raises BadInput for an answer that cannot be.
        def state_of(answer)
          return stretch_of(answer) if measured?
          return answer if states.key?(answer)

          raise BadInput.new("“#{answer}” is not a state of #{label.downcase}.", field: key)
        end

        # An answer that lies in a state: itself, or the middle of the stretch.
        def answer_in(state)
          return state unless measured?

          low, high = bounds(state.to_i)
          Math.sqrt(low * high).round(1).to_s
        end

        # {state => share} to be expected in a plant, adding up to 1; nil where its file and custom are silent.
        def shares(plant)
          told = plant.characters[key] || (@usual if for?(plant))
          return unless told

          told.key?("low") ? shares_between(told["low"], told["high"]) : shares_of(told)
        end

        # The same of {state => how often}, and of a range.
        def shares_of(told) = whole(listed(told))
        def shares_between(low, high) = whole(overlaps(low / SLACK, high * SLACK))

        # {state => chance that it is the answer} where specimens show {state => share}: some take a state for one
        # beside it, and some err.
        def answers(shares)
          found = shares.transform_values { |share| share * (1 - MIXED) }
          shares.each do |state, share|
            near = @near.fetch(state, [state])
            near.each { |other| found[other] += share * MIXED / near.size }
          end
          found.transform_values { |chance| ((1 - error) * chance) + (error / states.size) }
        end

        # Those that volunteers take a state for.
        def near(state) = @near.fetch(state, [])

        # The share of specimens in which two plants differ, 0 to 1; nil where nothing is known of one of them.
        def apart(left, right) = self.class.distance(shares(left), shares(right))

        # Total variation distance of two {state => share}.
        def self.distance(mine, theirs)
          mine && theirs && (mine.sum { |state, share| (share - theirs[state]).abs } / 2)
        end

        # {state => "always", ...} as the file or custom says it; for a measured one, the states within its range.
        def told(plant)
          told = plant.characters[key] || (@usual if for?(plant)) || {}
          return told unless told.key?("low")

          within = states.keys.select do |state|
            bounds(state.to_i).then { |low, high| low < told["high"] && high > told["low"] }
          end
          within.to_h { |state| [state, "usually"] }
        end

        # An answer in words.
        def say(answer)
          measured? ? "#{answer.to_s.delete_suffix(".0")} #{unit unless unit == "count"}".strip : states.fetch(answer)
        end

        private

        # {state => [states beside it]}: of a measured one the stretches beside it.
        def neighbours(pairs)
          pairs = measured? ? states.keys.each_cons(2).to_a : pairs.map { |pair| pair.split("-") }
          pairs.each_with_object({}) do |(one, other), all|
            (all[one] ||= []) << other
            (all[other] ||= []) << one
          end
        end

        def stretches
          said = unit == "count" ? "" : " #{unit}"
          [["0", "under #{edges.first}#{said}"],
           *edges.each_cons(2).with_index(1).map { |(a, b), n| [n.to_s, "#{a} to #{b}#{said}"] },
           [edges.size.to_s, "over #{edges.last}#{said}"]].to_h
        end

        def stretch_of(answer)
          number = Float(answer, exception: false)
          return edges.count { |edge| edge <= number }.to_s if number&.positive? && number < 100_000

          raise BadInput.new("#{label}: type a number above 0.", field: key)
        end

        def bounds(n) = [n.zero? ? edges.first / 4.0 : edges[n - 1], n == edges.size ? edges.last * 4.0 : edges[n]]

        def whole(raw)
          total = raw.values.sum
          raw.transform_values { |share| share / total }
        end

        def listed(told) = states.keys.to_h { |state| [state, SHARES.fetch(told.fetch(state, "never"))] }

        # A range laid over the stretches, on a logarithmic scale.
        def overlaps(from, to)
          states.keys.to_h do |state|
            low, high = bounds(state.to_i)
            shared = Math.log([high, to].min) - Math.log([low, from].max)
            [state, ([shared, 0].max / Math.log(to / from)) + SHARES["never"]]
          end
        end
      end
    end
  end
end
