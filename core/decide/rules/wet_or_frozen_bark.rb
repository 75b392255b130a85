# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        WetOrFrozenBark = Rule.new(:wet_or_frozen_bark, about: :bark_herbicide, source: "common_practice") do |now|
          next unless now.day

          wait "Bark is wet or frozen: oil does not go in." if (now.day.rain || 1) >= 1 || now.day.tmax.negative?
        end
      end
    end
  end
end
