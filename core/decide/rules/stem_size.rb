# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        StemSize = Rule.new(:stem_size, about: :any, source: "common_practice") do |now, removal|
          sizes = now.plant.removals.dig(removal.key, "sizes")
          next if sizes.nil? || now.size.nil? || sizes.include?(now.size)

          widest = Removal::SIZES.index(now.size) > Removal::SIZES.index(sizes.last)
          no "#{widest ? "Too wide" : "Too small"} for this: it suits #{sizes.size == 1 ? sizes.first : "#{sizes.first} to #{sizes.last}"} stems."
        end
      end
    end
  end
end
