# frozen_string_literal: true

module Thistle
  module Core
    module Mix
      # After a day on stubs: what was used against what the counted stubs should have drunk.
      class StubCheck
        Finding = Value.define(:kind, :stems, :enough_for, :low, :high, :used_ml, :count)

        # used_ml: ready mix; stems: counted as treated; usage: Usage of the method and size.
        def initialize(used_ml:, stems:, usage:)
          @used_ml, @stems, @usage = used_ml, stems, usage
        end

        # The Finding: kind is :short (too little was used), :heavy (far too much) or :fits; enough_for: stubs that the
        # mix would usually do, and the range of it. Nil where nothing was used or counted.
        def finding
          return unless @used_ml&.positive? && @stems&.positive?

          for_stubs = ->(dose) { (@used_ml / dose).round }
          Finding.new(kind:, stems: @stems, enough_for: for_stubs.call(@usage.median), low: for_stubs.call(@usage.high),
                      high: for_stubs.call(@usage.low), used_ml: @used_ml, count: @usage.count)
        end

        private

        def kind
          each = @used_ml / @stems
          return :short if each < @usage.low

          each > @usage.high ? :heavy : :fits
        end
      end
    end
  end
end
