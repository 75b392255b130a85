# frozen_string_literal: true

module Thistle
  module Store
    # Reading: what is wrong with how the records are kept.
    module Keeping
      module_function

      # In sentences, for those who look at Today and Records; empty when all is well.
      def said = [DailyCopies.new.said, Disk.said].compact
    end
  end
end
