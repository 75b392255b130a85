# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # Where a feed's days were measured. elevation in metres or nil; kind: :own, :simulated or :regional.
      Station = Value.define(:name, :latitude, :longitude, :elevation, :kind)
    end
  end
end
