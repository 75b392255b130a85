# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        StemSize = Rule.new(
          :stem_size,
          about: :any, looks: %i[size plant],
          source: "common_practice",
          says: "Each method has stems, or a stage of a plant's life, that it suits."
        ) do |now, removal|
          stems = Removal.sizes_of(now.plant) == Removal::SIZES
          sizes = removal.told(now.plant)&.fetch("sizes", nil) || (removal.sizes if stems)
          next if sizes.nil? || sizes.include?(now.size)

          asked, small, large = if stems
                                  ["How thick are the stems?", "These stems are too thin", "These stems are too thick"]
                                else
                                  ["How old are they?", "These plants are too young", "These plants are too old"]
                                end
          words = if stems then "#{[sizes.first, sizes.last].uniq.join(" to ")} stems"
                  else sizes.map { |one| Removal::AGES.fetch(one) }.join(" and ")
                  end
          if now.size
            past = Removal::SIZES.index(now.size) > Removal::SIZES.index(sizes.last)
            no "#{past ? large : small} for this method. It suits #{words}."
          elsif !sizes.include?("thumb") # what suits thumb-thick stems and grown plants suits most of what stands
            ask "#{asked} It suits #{words} only."
          end
        end
      end
    end
  end
end
