# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        StemSize = Rule.new(
          :stem_size,
          about: :any, looks: %i[size plant],
          source: "common_practice",
          says: "Each method has stems that it suits."
        ) do |now, removal|
          sizes = removal.told(now.plant)&.fetch("sizes", nil) || (removal.sizes if now.plant.woody?)
          next if sizes.nil? || now.size.nil? || sizes.include?(now.size)

          widest = Removal::SIZES.index(now.size) > Removal::SIZES.index(sizes.last)
          no "#{widest ? "Too wide" : "Too small"} for this: " \
             "it suits #{sizes.size == 1 ? sizes.first : "#{sizes.first} to #{sizes.last}"} stems."
        end
      end
    end
  end
end
