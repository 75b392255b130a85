# frozen_string_literal: true

module Thistle
  module Core
    module Decide
      module Rules
        DrySoil = Rule.new(:dry_soil, about: :pulling, source: "common_practice") do |now|
          wait "Dry soil snaps roots and leaves the live part behind. Pull the day after rain." if now.soil == :dry && !now.in_water?
        end
      end
    end
  end
end
