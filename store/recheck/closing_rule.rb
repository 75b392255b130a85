# frozen_string_literal: true

module Thistle
  module Store
    # Process: has the quiet and closed patches of a property follow its closing rule after it was changed, in the
    # background where there are many.
    class ClosingRule
      AT_ONCE, SLICE = 60, 20

      def initialize(property)
        @property = property
      end

      def follow
        ids = @property.live_patches.unordered.where(state: %w[quiet closed]).select_map(:id)
        return if ids.empty?

        job = Job.start("closing", @property, total: ids.size, must: true)
        job.public_send(ids.size > AT_ONCE ? :later : :now) do |work|
          ids.each_slice(SLICE).with_index do |some, n|
            work.hold { FollowUps.settle_each(some) }
            work.at((n + 1) * SLICE)
          end
        end
      end
    end
  end
end
