# frozen_string_literal: true

module Thistle
  module Core
    # How a plant's name stands within a sentence: "garlic mustard", but "Himalayan balsam".
    module InText
      PROPER = %w[African Allegheny American Amur Arizona Bell's Brazilian Breede California Callery Canada Cape
                  Carolina Chinese Christmas Dalmatian Darwin's English Eurasian European French Himalayan Japanese
                  Johnson Kahili Madeira Malta Morrow's New Norway Old Oregon Pennsylvania Port Portuguese Roemer's
                  Russian Scotch Spanish Tatarian Virginia].freeze

      def in_text = PROPER.include?(name.split.first) ? name : name.sub(/\A./, &:downcase)
    end
  end
end
