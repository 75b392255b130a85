# frozen_string_literal: true

module Thistle
  module Store
    # Process: what a planting asks for once it is in the ground, on its patch's list: new stock looked over for weeds
    # that came with it, a meadow mown in its first year, a count of what lives.
    class FirstYears
      ARRIVAL = "Look the stock over for weeds as it arrives, before it is planted"
      COUNTED = "Count what lives of the planting"
      LOOK, COUNT = 14, 365 # days after planting
      EARLY = 60 # days before its day on which it counts as made
      MOWN = [45, 75, 105].freeze # days after leaves unfold

      def initialize(plan, date)
        @plan, @date = plan, date
      end

      # Writes the tasks that are not there yet.
      def ask
        rows = @plan.seed? ? mowing : [[@date + LOOK, "Look the new plants over: weeds come with nursery stock"]]
        rows << [@date + COUNT, COUNTED]
        rows.each { |due_on, reason| write(due_on, reason) }
        FirstYears.made(@plan.patch_id, ARRIVAL, @date, upto: @plan.plantings.map(&:from_on).max)
      end

      # What was asked for is made: stock that stands in the ground has been looked over, what was counted is counted.
      # upto: the last day for which it was asked.
      def self.made(patch_id, reason, date, upto: nil)
        last = [date + EARLY, upto].compact.max
        Task.undone.where(patch_id:, reason:).where { due_on <= last }.update(done_on: date, done_by: "hand")
      end

      # When stock comes in, before any of it is planted.
      def arrival(due_on) = write([due_on, @date].max, ARRIVAL)

      private

      def mowing
        row = Core::Replant::Take.expected("seed", 1)
        start = growing? ? @date : leaf_out
        low, high = row.values_at("mow_to_cm", "mow_at_cm").map { |cm| @plan.patch.property.measures.depth(cm) }
        words = "Mow the sowing to #{low} when it stands #{high} high, before weeds seed"
        MOWN.map { |days| [start + days, words] }
      end

      # Was it sown while it grows, early enough to be mown in the same season?
      def growing?
        year = site.year(@date)
        from, to = %i[leaf_out first_frost].map { |mark| year.moment(mark)&.date }
        from && @date >= from && @date + MOWN.last <= (to || (year.start + 364))
      end

      def site = @site ||= @plan.patch.property.then { |property| property.site(property.today) }

      # Of the first growing season after sowing.
      def leaf_out
        [site.year(@date), site.year(@date >> 12)].filter_map { |year| year.moment(:leaf_out)&.date }
                                                  .find { |day| day >= @date } || (@date + 60)
      end

      def write(due_on, reason)
        open = Task.undone.where(patch_id: @plan.patch_id, reason:, due_on:)
        return unless open.empty?

        Task.create(patch_id: @plan.patch_id, kind: "planting", due_on:, reason:, source: "common_practice")
      end
    end
  end
end
