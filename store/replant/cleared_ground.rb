# frozen_string_literal: true

module Thistle
  module Store
    # Reading: the ground of a patch after its clearing, as Core::Replant::LookFirst asks: which natives came, how bare
    # and how steep it is, what the invader will still send.
    class ClearedGround
      YEARS = 4

      attr_reader :patch

      # Raises Core::BadInput (field :plant) for a patch without a plant.
      def initialize(patch, today)
        @patch, @today = patch, today
        @ahead = PatchOutlook.new(patch, today)
      end

      # Was it cleared, so that there is something to look at?
      def cleared? = patch.treatments.any? { |work| work.removal.removes? }

      # The last look that said which natives come.
      def look = @look ||= patch.checks.reverse.find(&:natives)

      # Share of the ground that is bare of the invader, by the last cover that was said and what was counted since; nil
      # where no cover was said.
      def bare
        cover = patch.amount.cover
        cover && (1 - (cover / 100.0 * there.share))
      end

      # What stands there (PatchStanding::There).
      def there = patch.history.there(@today)

      # The Core::Replant::LookFirst::Answer.
      def answer
        @answer ||= Core::Replant::LookFirst.new(natives: look&.natives, bare:, slope: patch.lie || "flat", invader:,
                                                 seedlings:, seed: patch.id).answer
      end

      # The day to look again: when leaves are full, of this year where that is ahead, else of the next.
      def look_on
        site = patch.property.site(@today)
        [site.year(@today), site.year(@today >> 12)].filter_map { |year| year.moment(:full_leaf)&.date }
                                                    .find { |day| day > @today + 14 }
      end

      private

      def years
        @years ||= @ahead.outlook(horizon: YEARS).compare([@ahead.strategy(@ahead.removals.first)]).first.years
      end

      # The share of the ground that the invader holds in each year, if the work goes on.
      def invader
        full = @ahead.stages.range("crowd").likely * @ahead.m2
        years.map { |year| year.standing.values_at(0, 2, 4).map { |plants| plants / full } }
      end

      # Seedlings of it on a square metre next year.
      def seedlings
        year = years.first
        [(year.shows[2] - year.standing[2]) / @ahead.m2, 0.0].max
      end
    end
  end
end
