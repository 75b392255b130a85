# frozen_string_literal: true

module Thistle
  module Core
    module Survey
      # A kind of ground, as knowledge/zones.yml describes it.
      ZoneKind = Value.define(:key, :label, :keep_m, :spreads, :worth, :shape, :forbids, :unless, :text, :source) do
        # Does work of this method end at its edge?
        def forbids?(removal)
          forbids&.any? { |tag| tag == "herbicide" ? removal.herbicide? : removal.is?(tag.to_sym) }
        end
      end

      # A zone seen from a patch: m from edge to edge, 0 where they touch, and the distance to keep from it.
      Nearby = Value.define(:id, :kind, :name, :distance_m, :keep_m) do
        def touches? = distance_m.zero?
        def within? = distance_m <= keep_m
        def label = name || Knowledge.shipped.zone_kinds.fetch(kind).label
      end
    end
  end
end
