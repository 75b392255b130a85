# frozen_string_literal: true

module Thistle
  module Core
    module Identify
      # What a person should practise: which plant next, and which pair they mix up. Answers come back spaced over days;
      # a miss brings the plant and its rival back at once.
      class Practice
        Answer = Value.define(:plant, :answer, :on) do # keys of plants, and a date
          def right? = plant == answer
        end
        SPACING = [0, 1, 3, 7, 21, 60].freeze # days until it comes again, by right answers in a row
        Pair = Value.define(:shown, :taken_for, :times)

        # answers: [Answer], oldest first. plants: those to practise.
        def initialize(answers, plants:, today:)
          @answers, @plants, @today = answers, plants, today
          @by_plant = answers.group_by(&:plant)
        end

        # The plant to deal next: one that was missed and is due, else one never shown, else the longest due, else any.
        # Look-alikes come before plants that nobody mixes up.
        def next_plant(random)
          missed, alike = due.select { |plant| missed?(plant) }, fresh.select { |plant| plant.look_alikes.any? }
          pool = [missed, alike, fresh, due, @plants].find(&:any?)
          pool.sample(random:)
        end

        # Days from which each shown plant is due again.
        def due_on(plant)
          answers = @by_plant.fetch(plant.key) { return @today }
          streak = answers.reverse.take_while(&:right?).size
          answers.last.on + SPACING.fetch(streak, SPACING.last)
        end

        # {shown => {taken for => times}}, right answers included.
        def confusion = @by_plant.transform_values { |answers| answers.map(&:answer).tally }

        # The pairs that were mixed up, most often first, either way round counted together.
        def pairs
          wrong = @answers.reject(&:right?).map { |answer| [answer.plant, answer.answer].sort }.tally
          wrong.sort_by { |pair, times| [-times, pair] }
               .map { |(a, b), times| Pair.new(shown: a, taken_for: b, times:) }
        end

        # Plants that this one was taken for.
        def rivals(plant)
          pairs.filter_map { |pair| { pair.shown => pair.taken_for, pair.taken_for => pair.shown }[plant.key] }
        end

        def right = @answers.count(&:right?)
        def asked = @answers.size
        def share_right = @answers.empty? ? nil : right / asked.to_f

        private

        def fresh = @plants.reject { |plant| @by_plant.key?(plant.key) }
        def due = @plants.select { |plant| @by_plant.key?(plant.key) && due_on(plant) <= @today }
        def missed?(plant) = @by_plant.fetch(plant.key).last(3).any? { |answer| !answer.right? }
      end
    end
  end
end
