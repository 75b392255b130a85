# frozen_string_literal: true

module Thistle
  module Web
    module Recheck
      # Open visits, soonest first; those that one walk makes; what a missed one has cost by now, in words.
      class VisitsBoard
        attr_reader :turns

        def initialize(turns, property, today, tasks: turns.rows, properties: [property])
          @turns, @property, @today = turns, property, today
          @ahead = Store::VisitsAhead.new(property, today, tasks:, properties:)
        end

        # [[day, [task]]].
        def rounds = @rounds ||= turns.page.zero? ? @ahead.rounds : []

        # The ground with the patches of the next round; nil for none.
        def next_round
          tasks = rounds.first&.last or return
          Survey::GroundPlot.new(@property, Store::Patch.where(id: tasks.map(&:patch_id)).order(:id).all)
        end

        # "32 days late. Seed has ripened since 2 June: …"; nil for one that is not late.
        def late(task)
          one = @ahead.late(task) or return

          ["#{Words.late(one.days)} late#{more(one)}.", sown(one), dearer(one)].compact.join(" ")
        end

        private

        def more(one)
          return "" unless one.others.positive?

          ". One visit now also counts for #{one.others == 1 ? "another" : "#{one.others} others"} that " \
            "#{one.others == 1 ? "was" : "were"} missed"
        end

        def sown(one)
          return unless one.seeded_on

          years = one.years.to_i
          again = years.positive? ? ": expect seedlings for #{Web::Words.count(years, "year")} again" : ""
          "Its seed ripened on #{Web::Words.day(one.seeded_on)}. Missed plants have dropped seed#{again}."
        end

        def dearer(one)
          return unless one.money && one.money >= 1

          "Clearing it now costs about #{@property.rates.currency}#{one.money.round} more."
        end
      end
    end
  end
end
