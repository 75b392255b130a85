# frozen_string_literal: true

module Thistle
  module Core
    module Survey
      # A zone seen from a patch: m from edge to edge, 0 where they touch, and the distance to keep from it.
      Nearby = Value.define(:id, :kind, :name, :distance_m, :keep_m) do
        def touches? = distance_m.zero?
        def within? = distance_m <= keep_m
        def label = name || Knowledge.shipped.zone_kinds.fetch(kind).label
      end
    end
  end
end
