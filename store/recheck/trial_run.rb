# frozen_string_literal: true

module Thistle
  module Store
    # Model: a trial of two methods on a patch, with its tagged stems.
    class TrialRun < Sequel::Model(:trials)
      many_to_one :patch, class: "Thistle::Store::Patch"
      one_to_many :stems, class: "Thistle::Store::TrialStem", key: :trial_id, order: :number

      include Live

      # The Core::Recheck::Trial as it stands.
      def trial
        arms = [0, 1].map do |arm|
          own = stems.select { |stem| stem.arm == arm }
          Core::Recheck::Trial::Arm.new(dead: own.count { |stem| stem.alive == false }, alive: own.count(&:alive),
                                        open: own.count { |stem| stem.alive.nil? })
        end
        Core::Recheck::Trial.new(arms)
      end

      def removals = [first_method, second_method].map { |key| Core::Knowledge.shipped.removal(key) }
      def how(arm) = arm.zero? ? first_how : second_how
      def open_stems = stems.select { |stem| stem.alive.nil? }

      # Gives out so many more tags at random, by what is known; two people at once give out different ones. Raises
      # Core::BadInput (field :count).
      def give_out(count, today)
        db.transaction do
          this.update(ended_on: nil) # takes the turn before anything is read
          reload
          from = (stems.last&.number || 0) + 1
          arms = trial.assign(count, seed: seed + from)
          arms.each_with_index { |arm, n| TrialStem.create(trial_id: id, number: from + n, arm:, given_on: today) }
        end
        reload
      end

      # Counts stems: those of these numbers live, the others that were given out by then and are not among the unfound
      # are dead. Raises Core::BadInput (field :alive or :unfound) for a number that no open tag has.
      def count(alive:, unfound:, on:)
        db.transaction do
          reload
          open = open_stems.select { |stem| stem.given_on <= on }
          { alive:, unfound: }.each { |field, numbers| known(field, numbers, open) }
          open.reject { |stem| unfound.include?(stem.number) }.each do |stem|
            stem.update(alive: alive.include?(stem.number), counted_on: on)
          end
        end
        reload
      end

      # Puts one tag right: true, false, or nil for not counted.
      def put_right(number, alive, today)
        stem = stems.find { |one| one.number == number } or return
        stem.update(alive:, counted_on: alive.nil? ? nil : stem.counted_on || today)
        reload
      end

      def reload
        associations.clear
        refresh
      end

      def end_on(date) = update(ended_on: date)
      def take_back = update(deleted_at: Time.now.utc)
      def bring_back = update(deleted_at: nil)

      private

      def known(field, numbers, open)
        strange = numbers - open.map(&:number)
        return if strange.empty?

        raise Core::BadInput.new("Tag #{strange.first} is not one that waits to be counted.", field:)
      end
    end
  end
end
