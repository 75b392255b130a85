# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # A mark of the year at a site: its date this year, the usual spread, whether it has been measured
      # already, and how it was found. early and late are the 10th and 90th percentile over the history.
      Anchor = Value.define(:key, :label, :date, :early, :late, :measured, :working)
    end
  end
end
