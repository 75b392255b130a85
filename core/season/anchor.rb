# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # A mark of the year at a site. early and late are the 10th and 90th percentile over past years; low and high are
      # the same for this year, from its weather so far and each past year's weather from then on. measured: it has
      # come. seen: a person saw it. working: [Step].
      Anchor = Value.define(:key, :label, :date, :early, :late, :low, :high, :measured, :seen, :working)
    end
  end
end
