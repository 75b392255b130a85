# frozen_string_literal: true

module Thistle
  module Store
    # Model: a photograph of a report, kept as it came.
    class Photo < Sequel::Model(:photos)
      many_to_one :report, class: "Thistle::Store::Report"
    end
  end
end
