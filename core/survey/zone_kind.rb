# frozen_string_literal: true

module Thistle
  module Core
    module Survey
      # A kind of ground, as knowledge/zones.yml describes it.
      ZoneKind = Value.define(:key, :label, :keep_m, :unplanted_m, :spreads, :worth, :shape, :forbids, :unless, :text,
                              :secret, :source) do
        # Does work of this method end at its edge?
        def forbids?(removal)
          forbids&.any? { |tag| tag == "herbicide" ? removal.herbicide? : removal.is?(tag.to_sym) }
        end
      end
    end
  end
end
