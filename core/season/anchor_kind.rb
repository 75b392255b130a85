# frozen_string_literal: true

module Thistle
  module Core
    module Season
      # A kind of mark as knowledge/anchors.yml gives it: by names the way to find it (Spotter), season the half of the
      # year it belongs to, in which Hopkins' law moves it later (spring) or earlier (autumn).
      AnchorKind = Value.define(:key, :label, :by, :season, :degree_days, :nth, :at, :days, :mm, :within, :lake, :after,
                                :source) do
        # Quantities stand in it as Step reads them.
        def rule
          case by
          when "warmth"
            "{warmth:#{degree_days}}, means of low and high summed from day #{Spotter::LENGTHENS + 1} of the year"
          when "frost"
            which = nth == "last" ? "last spring" : "#{%w[first second third][nth - 1]} autumn"
            "#{which} night at or below {temperature:#{at}}"
          when "frozen" then "first of #{days} days running with the ground frozen"
          when "thawed" then "first of #{days} days running with the ground thawed for good"
          when "rains" then "first {rain:#{mm}} within #{within} days since the middle of the dry season"
          when "wet_end" then "last {rain:#{mm}} within #{within} days before the middle of the dry season"
          when "growth" then "{warmth:#{degree_days}} on days with soil that is not dry, since the first soaking rains"
          when "browned" then "#{days}th day running with dry soil after the wet season"
          when "ice" then "last day on which ice, grown and melted by degree days, covers the water"
          when "water" then "water, following the air over two weeks, first at {temperature:#{at}}"
          end
        end
      end
    end
  end
end
